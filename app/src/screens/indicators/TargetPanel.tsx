import { StyleSheet, View } from 'react-native';
import {
  addsUp,
  BUCKET_WORDS,
  displayDivisor,
  displayUnit,
  formatDate,
  SUMMARIES_OF_KIND,
  type IndicatorDefinition,
  type Proration,
  type TargetSource,
} from '@vivid-beacon/core';
import type { TargetSuggestion } from '@vivid-beacon/core/src/aggregation';
import { useSuggestedTargets } from '../../api/indicators';
import { Button } from '../../components/Button';
import { NumberField } from '../../components/NumberField';
import { Row } from '../../components/Row';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { MetricPick } from '../../assets/MetricPick';
import { BaselineWeeks } from './BaselineWeeks';
import { directionOf } from './indicatorDraft';
import { shownValue } from './indicatorWords';

interface TargetPanelProps {
  readonly definition: IndicatorDefinition;
  readonly unit: string;
  readonly usual: number;
  readonly zone: string;
  readonly onChange: (target: TargetSource) => void;
}

const SOURCES = [
  { value: 'none', label: 'None' },
  { value: 'fixed', label: 'One value' },
  { value: 'periods', label: 'By period' },
  { value: 'measure', label: 'Another metric' },
  { value: 'lastYear', label: 'Last year' },
  { value: 'baseline', label: 'What is usual' },
] as const;
const PERIODS = (['month', 'quarter', 'year', 'financialQuarter', 'financialYear'] as const).map((value) => ({
  value,
  label: `by ${BUCKET_WORDS[value]}`,
}));
const PRORATE: readonly { readonly value: Proration; readonly label: string }[] = [
  { value: 'calendar', label: 'As time passes' },
  { value: 'working', label: 'As working time passes' },
  { value: 'none', label: 'Whole at once' },
];

/** Where the target comes from, and what the past suggests. */
export function TargetPanel({ definition, unit, usual, zone, onChange }: TargetPanelProps) {
  const palette = usePalette();
  const { target, measure, window, hours, judge, display } = definition;
  const by = displayDivisor(display);
  const direction = directionOf(judge);
  const suggested = useSuggestedTargets(
    target.kind === 'fixed' ? { measure, window, hours, direction } : null,
  );
  const choose = (kind: TargetSource['kind']): void => {
    if (kind === 'none') onChange({ kind });
    if (kind === 'fixed') onChange({ kind, value: Number(usual.toPrecision(3)) });
    if (kind === 'periods') onChange({ kind, period: 'month', prorate: 'calendar' });
    if (kind === 'measure') onChange({ kind, measure, factor: 1 });
    const better = direction === 'higher' ? 5 : direction === 'lower' ? -5 : 0;
    if (kind === 'lastYear') onChange({ kind, percent: better });
    if (kind === 'baseline') onChange({ kind, weeks: 8, percent: better });
  };
  return (
    <View style={styles.panel}>
      <WordRow name="Where the target comes from" options={SOURCES} chosen={target.kind} onChoose={choose} />
      {target.kind === 'fixed' && (
        <>
          <NumberField
            label="Target"
            unit={displayUnit(unit, display)}
            value={target.value / by}
            onChange={(value) => onChange({ ...target, value: value * by })}
          />
          {addsUp(measure) && (
            <WordRow
              name="Part of the window gets"
              options={PRORATE}
              chosen={target.prorate ?? 'none'}
              onChoose={(prorate) => onChange({ ...target, prorate })}
            />
          )}
          {suggested.data?.suggestions.map((suggestion) => (
            <Row
              key={suggestion.kind}
              title={shownValue(suggestion.value, unit, definition)}
              second={reasonOf(suggestion, suggested.data.bucket, zone)}
              right={
                <Button
                  variant="quiet"
                  label="Take"
                  name={`Take ${shownValue(suggestion.value, unit, definition)} as the target`}
                  onPress={() => onChange({ ...target, value: Number(suggestion.value.toPrecision(6)) })}
                />
              }
            />
          ))}
        </>
      )}
      {target.kind === 'periods' && (
        <>
          <WordRow
            name="One target per"
            options={PERIODS}
            chosen={target.period as 'month'}
            onChoose={(period) => onChange({ ...target, period })}
          />
          <WordRow
            name="Part of a period gets"
            options={PRORATE}
            chosen={target.prorate}
            onChoose={(prorate) => onChange({ ...target, prorate })}
          />
          <Words as="second" colour={palette.ink2}>
            Enter the targets on the indicator's page, also for periods to come. Single months of a longer
            period can be set otherwise there. Means and ratios are not prorated: they hold as they are.
          </Words>
        </>
      )}
      {target.kind === 'baseline' && (
        <BaselineWeeks weeks={target.weeks} onChange={(weeks) => onChange({ ...target, weeks })} />
      )}
      {(target.kind === 'lastYear' || target.kind === 'baseline') && (
        <NumberField
          label={target.kind === 'lastYear' ? 'More or less than last year' : 'More or less than usual'}
          unit="%"
          value={target.percent}
          onChange={(percent) => onChange({ ...target, percent })}
        />
      )}
      {target.kind === 'measure' && (
        <>
          <NumberField
            label="Times"
            value={target.factor}
            onChange={(factor) => onChange({ ...target, factor })}
          />
          <MetricPick
            name="Metric of the target"
            chosen={target.measure.metricId}
            onChoose={({ id, kind }) =>
              onChange({
                ...target,
                measure: { metricId: id, summary: SUMMARIES_OF_KIND[kind][0], per: null },
              })
            }
          />
        </>
      )}
    </View>
  );
}

function reasonOf({ kind, values, from, to }: TargetSuggestion, bucket: string, zone: string): string {
  if (kind === 'median') return `half of the last ${values} ${bucket}s reached it`;
  if (kind === 'quarter') return `the better quarter of the last ${values} ${bucket}s reached it`;
  return `best mean of ${values} ${bucket}s in a row, ${formatDate(from!, zone)} to ${formatDate(to!, zone)}`;
}

const styles = StyleSheet.create({ panel: { gap: 8 } });
