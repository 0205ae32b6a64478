import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useStore } from 'zustand';
import { useQueryClient } from '@tanstack/react-query';
import {
  formatLength,
  SEPARATOR_WORDS,
  SEPARATORS,
  TIME_FORMAT_WORDS,
  TIME_FORMATS,
  type Asset,
  type Metric,
  type Recognised,
} from '@vivid-beacon/core';
import { addAsset, addMetric } from '../../api/changes';
import { useSession } from '../../api/session';
import { Button } from '../../components/Button';
import { Section } from '../../components/Section';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import type { createIntakeStore, ColumnPlan } from '../../stores/intakeStore';
import { usePalette } from '../../theme/useTheme';
import type { TargetColumn } from '../../workers/intakeMessages';
import { AssetChoice, type ChosenAsset } from './AssetChoice';
import { ColumnPlanner } from './ColumnPlanner';
import { FirstRows } from './FirstRows';

interface IntakeCheckProps {
  readonly store: ReturnType<typeof createIntakeStore>;
  readonly assets: readonly Asset[];
  readonly metrics: readonly Metric[];
}

const USUAL_STEP_MS = 3_600_000;

/** Shows how the file was understood, lets it be corrected, and asks what each column feeds. */
export function IntakeCheck({ store, assets, metrics }: IntakeCheckProps) {
  const palette = usePalette();
  const client = useQueryClient();
  const { recognised, encoding, plans, correct, actions } = useStore(store);
  const token = useSession().data?.csrfToken ?? '';
  const [asset, setAsset] = useState<ChosenAsset>({
    id: null,
    name: '',
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  });
  const [busy, setBusy] = useState(false);
  if (!recognised) return null;
  const { layout, columns, timeFormats, stepMs } = recognised;
  const mustAsk = timeFormats.length > 1 && correct.timeFormat === undefined;
  const taken = columns.filter(
    ({ numeric, index }) => numeric && plans[index] && plans[index].to !== 'nothing',
  );
  const needsAsset = taken.some(({ index }) => plans[index].to === 'new');
  const zone = zoneOf(
    asset,
    assets,
    metrics,
    taken.map(({ index }) => plans[index]),
  );
  const problem = mustAsk
    ? 'Say whether the day or the month comes first.'
    : taken.length === 0
      ? 'Choose at least one column to take.'
      : taken.some(({ index }) => isOpen(plans[index]))
        ? 'Choose the existing metric for every column that feeds one.'
        : needsAsset && asset.id === null && asset.name.trim() === ''
          ? 'Choose an asset, or name a new one.'
          : null;

  const bringIn = async (): Promise<void> => {
    setBusy(true);
    try {
      const targets = await makeTargets(
        recognised,
        plans,
        needsAsset ? asset : null,
        stepMs ?? USUAL_STEP_MS,
      );
      await client.invalidateQueries({ queryKey: ['metrics'] });
      // A second try must not add the metrics again: they are there now.
      for (const { index, metricId } of targets) actions.plan(index, { to: 'existing', metricId });
      actions.read({ targets, zone, now: Date.now(), formToken: token });
    } catch (error) {
      actions.fail((error as Error).message);
    } finally {
      setBusy(false);
    }
  };

  return (
    <>
      <Section title="First rows" aside={`${encoding}, ${columns.length} columns`}>
        <FirstRows recognised={recognised} />
      </Section>
      <Section title="How the file is read">
        <Words as="second" colour={palette.ink2}>
          Between columns
        </Words>
        <WordRow
          name="Between columns"
          options={SEPARATORS.map((value) => ({ value, label: SEPARATOR_WORDS[value] }))}
          chosen={layout.separator}
          onChoose={(separator) => actions.correctLayout({ separator })}
        />
        <Words as="second" colour={palette.ink2}>
          Decimal sign
        </Words>
        <WordRow
          name="Decimal sign"
          options={[
            { value: '.', label: 'dot' },
            { value: ',', label: 'comma' },
          ]}
          chosen={layout.decimal}
          onChoose={(decimal) => actions.correctLayout({ decimal: decimal as '.' | ',' })}
        />
        <Words as="second" colour={palette.ink2}>
          First row
        </Words>
        <WordRow
          name="First row"
          options={[
            { value: '1', label: 'headings' },
            { value: '0', label: 'data' },
          ]}
          chosen={String(layout.headingRows)}
          onChoose={(rows) => actions.correctLayout({ headingRows: rows === '1' ? 1 : 0 })}
        />
        <Words as="second" colour={palette.ink2}>
          Column of times
        </Words>
        <WordRow
          name="Column of times"
          options={columns.map(({ index, heading }) => ({ value: String(index), label: heading }))}
          chosen={String(layout.timeColumn)}
          onChoose={(index) => actions.correctLayout({ timeColumn: Number(index), timeFormat: undefined })}
        />
        <Words as="second" colour={mustAsk ? palette.cautionT : palette.ink2}>
          {mustAsk
            ? 'How times are written: the file itself cannot tell, please choose'
            : 'How times are written'}
        </Words>
        <WordRow
          name="How times are written"
          options={(timeFormats.length > 0 ? timeFormats : TIME_FORMATS).map((value) => ({
            value,
            label: TIME_FORMAT_WORDS[value],
          }))}
          chosen={mustAsk ? null : layout.timeFormat}
          onChoose={(timeFormat) => actions.correctLayout({ timeFormat })}
        />
        <Words as="second" colour={palette.ink2}>
          {`${stepMs === null ? 'One row only' : `About ${formatLength(stepMs)} between rows`}. Times without an offset are read as local time of ${zone}.`}
        </Words>
      </Section>
      <Section title="What the columns feed">
        {columns
          .filter(({ numeric }) => numeric)
          .map((column) => (
            <ColumnPlanner
              key={column.index}
              column={column}
              plan={plans[column.index] ?? { to: 'nothing' }}
              metrics={metrics}
              onPlan={(plan) => actions.plan(column.index, plan)}
            />
          ))}
      </Section>
      {needsAsset && (
        <Section title="Asset of the new metrics">
          <AssetChoice assets={assets} chosen={asset} onChoose={setAsset} />
        </Section>
      )}
      <View style={styles.foot}>
        {problem && (
          <Words as="body" colour={palette.cautionT}>
            {problem}
          </Words>
        )}
        <Button
          look="main"
          label={busy ? 'Preparing' : 'Bring it in'}
          disabled={busy || problem !== null}
          onPress={() => void bringIn()}
        />
      </View>
    </>
  );
}

/** Makes the new asset and metrics, and gives every column its metric. */
async function makeTargets(
  recognised: Recognised,
  plans: Readonly<Record<number, ColumnPlan>>,
  asset: ChosenAsset | null,
  stepMs: number,
): Promise<TargetColumn[]> {
  const assetId =
    asset &&
    (asset.id ?? (await addAsset({ name: asset.name, parentId: null, kind: 'site', zone: asset.zone })).id);
  const targets: TargetColumn[] = [];
  for (const { index, heading, numeric } of recognised.columns) {
    const plan = plans[index];
    if (!numeric || !plan || plan.to === 'nothing') continue;
    const metricId =
      plan.to === 'existing'
        ? plan.metricId
        : (
            await addMetric({
              assetId: assetId!,
              name: plan.name,
              unit: plan.unit,
              kind: plan.kind,
              intervalMs: Math.max(1000, stepMs),
              decimals: 1,
            })
          ).id;
    targets.push({ index, heading, metricId });
  }
  return targets;
}

/** The zone local times are read in: that of the asset the file feeds. */
function zoneOf(
  asset: ChosenAsset,
  assets: readonly Asset[],
  metrics: readonly Metric[],
  plans: readonly ColumnPlan[],
): string {
  const existing = plans.find((plan) => plan.to === 'existing');
  const metric = existing?.to === 'existing' && metrics.find(({ id }) => id === existing.metricId);
  if (metric && !plans.some((plan) => plan.to === 'new')) return metric.zone;
  return assets.find(({ id }) => id === asset.id)?.zone ?? asset.zone;
}

function isOpen(plan: ColumnPlan): boolean {
  return plan.to === 'existing' && plan.metricId === '';
}

const styles = StyleSheet.create({ foot: { paddingVertical: 16, gap: 8, alignItems: 'flex-start' } });
