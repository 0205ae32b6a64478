import { StyleSheet, View } from 'react-native';
import {
  displayDivisor,
  displayUnit,
  SUMMARIES_OF_KIND,
  type IndicatorDefinition,
  type ReferenceSource,
} from '@vivid-beacon/core';
import { NumberField } from '../../components/NumberField';
import { WordRow } from '../../components/WordRow';
import { MetricPick } from '../../assets/MetricPick';
import { BaselineWeeks } from './BaselineWeeks';

interface ReferencePanelProps {
  readonly definition: IndicatorDefinition;
  readonly unit: string;
  readonly usual: number;
  readonly onChange: (reference: ReferenceSource) => void;
}

const SOURCES = [
  { value: 'before', label: 'The period before' },
  { value: 'lastYear', label: 'The same last year' },
  { value: 'baseline', label: 'What is usual' },
  { value: 'fixed', label: 'One value' },
  { value: 'measure', label: 'Another metric' },
  { value: 'none', label: 'Nothing' },
] as const;

/** What the value is compared with: an earlier window, a fixed value, or another metric such as a budget series. */
export function ReferencePanel({ definition, unit, usual, onChange }: ReferencePanelProps) {
  const { reference, measure, display } = definition;
  const by = displayDivisor(display);
  const choose = (kind: ReferenceSource['kind']): void => {
    if (kind === 'fixed') onChange({ kind, value: Number(usual.toPrecision(3)) });
    else if (kind === 'measure') onChange({ kind, measure });
    else if (kind === 'baseline') onChange({ kind, weeks: 8 });
    else onChange({ kind });
  };
  return (
    <View style={styles.panel}>
      <WordRow name="Compared with" options={SOURCES} chosen={reference.kind} onChoose={choose} />
      {reference.kind === 'fixed' && (
        <NumberField
          label="Reference"
          unit={displayUnit(unit, display)}
          value={reference.value / by}
          onChange={(value) => onChange({ ...reference, value: value * by })}
        />
      )}
      {reference.kind === 'baseline' && (
        <BaselineWeeks weeks={reference.weeks} onChange={(weeks) => onChange({ kind: 'baseline', weeks })} />
      )}
      {reference.kind === 'measure' && (
        <MetricPick
          name="Metric of the reference"
          chosen={reference.measure.metricId}
          onChoose={({ id, kind }) =>
            onChange({
              kind: 'measure',
              measure: { metricId: id, summary: SUMMARIES_OF_KIND[kind][0], per: null },
            })
          }
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8 } });
