import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatNumber, type DegreeDaysAsk, type Metric, type WindowSpec } from '@vivid-beacon/core';
import { useDegreeDays } from '../../api/data';
import { QueryResult } from '../../components/QueryResult';
import { NumberField } from '../../components/NumberField';
import { Section } from '../../components/Section';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

const DEFAULT_BASE = 15.5;

/** Degree days of an outside temperature over the window, by a published method that can be chosen. */
export function DegreeDaysPanel({
  metric,
  window,
}: {
  readonly metric: Metric;
  readonly window: WindowSpec;
}) {
  const palette = usePalette();
  const [ask, setAsk] = useState<Omit<DegreeDaysAsk, 'window'>>({
    base: DEFAULT_BASE,
    kind: 'heating',
    method: 'mean',
  });
  const answer = useDegreeDays(metric.id, { ...ask, window }, true);
  return (
    <Section title="Degree days">
      <View style={styles.row}>
        <View style={styles.base}>
          <NumberField
            label="Base temperature"
            value={ask.base}
            unit={metric.unit}
            onChange={(base) => setAsk({ ...ask, base })}
          />
        </View>
        <WordRow
          name="Heating or cooling"
          options={[
            { value: 'heating', label: 'heating' },
            { value: 'cooling', label: 'cooling' },
          ]}
          chosen={ask.kind}
          onChoose={(kind) => setAsk({ ...ask, kind: kind as 'heating' | 'cooling' })}
        />
        <WordRow
          name="Method"
          options={[
            { value: 'mean', label: 'from the daily mean' },
            { value: 'minMax', label: 'from lowest and highest' },
          ]}
          chosen={ask.method}
          onChoose={(method) => setAsk({ ...ask, method: method as 'mean' | 'minMax' })}
        />
      </View>
      <QueryResult query={answer} reading="Loading degree days">
        {({ total, missing, day }) => (
          <View style={styles.total}>
            <Words as="hero">{total === null ? 'No data' : formatNumber(total, 1)}</Words>
            <Words as="second" colour={palette.ink2}>
              {`degree days over ${day.length - missing} whole days${missing > 0 ? `; ${missing} left out, unfinished or with too little data` : ''}`}
            </Words>
          </View>
        )}
      </QueryResult>
    </Section>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 28, rowGap: 4, alignItems: 'flex-end' },
  base: { width: 170 },
  total: { flexDirection: 'row', alignItems: 'baseline', gap: 12, flexWrap: 'wrap' },
});
