import { View } from 'react-native';
import type { Binding, Metric } from '@vivid-beacon/core';
import { useDerived, useFactors } from '../../api/data';
import { useAssetsById, useMetricsById } from '../../api/catalogue';
import { QueryResult } from '../../components/QueryResult';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

/** How a derived metric is made: its expression and what each name stands for. */
export function DerivedSummary({ metric }: { readonly metric: Metric }) {
  const palette = usePalette();
  const derived = useDerived(metric.id);
  const nameOf = useBindingWords(derived.data?.bindings ?? {});
  return (
    <QueryResult query={derived} reading="Loading the expression">
      {({ expression, bindings, way }) => (
        <View>
          <Words as="sentence">{expression}</Words>
          {Object.entries(bindings).map(([name, binding]) => (
            <Words key={name} as="second" colour={palette.ink2}>
              {`${name}: ${nameOf(binding)}`}
            </Words>
          ))}
          <Words as="second" colour={palette.ink2}>
            {way === 'totals' ? 'Calculated from the totals of each period.' : 'Calculated sample by sample.'}
          </Words>
        </View>
      )}
    </QueryResult>
  );
}

/** What the names of an expression stand for, in words. */
export function useBindingWords(bindings: Readonly<Record<string, Binding>>): (binding: Binding) => string {
  const all = Object.values(bindings);
  const metrics = useMetricsById(all.map((each) => (each.kind === 'metric' ? each.metricId : null)));
  const assets = useAssetsById(all.map((each) => ('assetId' in each ? each.assetId : null)));
  const factors = useFactors().data ?? [];
  const asset = (id: string): string => assets.byId.get(id)?.name ?? 'a removed asset';
  return (binding) => {
    switch (binding.kind) {
      case 'metric': {
        const metric = metrics.byId.get(binding.metricId);
        return metric
          ? `${metric.name}, ${metric.assetName}${metric.unit ? ` (${metric.unit})` : ''}`
          : 'a removed metric';
      }
      case 'children':
        return `${binding.metricName} of all assets below ${asset(binding.assetId)}, added up`;
      case 'attribute':
        return `${binding.attribute} of ${asset(binding.assetId)}`;
      case 'factor':
        return factors.find(({ id }) => id === binding.factorId)?.name ?? 'a removed factor';
    }
  };
}
