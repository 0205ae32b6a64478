import { StyleSheet, View } from 'react-native';
import type { Measure } from '@vivid-beacon/core';
import { withPer, withPerAttribute, withRatio } from '../../boards/perMeasure';
import { Button } from '../../components/Button';
import { PickList } from '../../components/PickList';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { MetricPick } from '../../assets/MetricPick';
import { useNumericAttributes } from './useNumericAttributes';

interface PerPanelProps {
  readonly measure: Measure;
  readonly onChange: (change: (measure: Measure) => Measure) => void;
}

/** By what a measure is divided: another metric, sum over sum; an attribute of its assets; or nothing. */
export function PerPanel({ measure, onChange }: PerPanelProps) {
  const { per, perAttribute = null } = measure;
  const attributes = useNumericAttributes();
  return (
    <View style={styles.panel}>
      {per && (
        <WordRow
          name="Shown as"
          options={[
            { value: 'ratio' as const, label: 'Ratio of the sums' },
            { value: 'percent' as const, label: 'Percent' },
          ]}
          chosen={per.factor === 100 ? 'percent' : 'ratio'}
          onChoose={(way) =>
            onChange((each) => (way === 'percent' ? withRatio(each, 100, '%') : withRatio(each, 1, null)))
          }
        />
      )}
      {(per ?? perAttribute) !== null && (
        <Button
          variant="quiet"
          label="Show it on its own"
          onPress={() => onChange((each) => withPer(each, null))}
        />
      )}
      {attributes.length > 0 && (
        <>
          <Words as="sectionHead" heading={3}>
            Per an attribute of its assets
          </Words>
          <PickList
            name="Per attribute"
            searchFrom={12}
            options={attributes.map((value) => ({ value, label: value }))}
            chosen={perAttribute}
            onChoose={(name) => onChange((each) => withPerAttribute(each, name))}
          />
          <Words as="sectionHead" heading={3}>
            Per another metric
          </Words>
        </>
      )}
      <MetricPick
        name="Per metric"
        chosen={per?.metricId ?? null}
        onChoose={(metric) => onChange((each) => withPer(each, metric))}
      />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 10 } });
