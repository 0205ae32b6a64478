import { StyleSheet, View } from 'react-native';
import {
  RULE_PERIODS,
  SUMMARIES_OF_KIND,
  SUMMARY_WORDS,
  type Metric,
  type RuleInput,
} from '@vivid-beacon/core';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { firstPeriods } from './useJudged';

interface OverPanelProps {
  readonly rule: Pick<RuleInput, 'over'>;
  readonly metric: Metric;
  readonly onChange: (over: RuleInput['over']) => void;
}

const SAMPLES = 'samples';

/** Whether each sample is judged or the value of each full hour, shift, day, week or month, and which value that is. */
export function OverPanel({ rule: { over }, metric, onChange }: OverPanelProps) {
  const palette = usePalette();
  const periods = RULE_PERIODS.map((value) => ({ value, label: `Each full ${value}` }));
  const sampled = metric.origin === 'samples' && over?.indicatorId == null;
  // A metric computed from totals has one value a period.
  const summaries =
    metric.origin === 'derived' ? SUMMARIES_OF_KIND[metric.kind].slice(0, 1) : SUMMARIES_OF_KIND[metric.kind];
  return (
    <View style={styles.panel}>
      <WordRow
        name="What is judged"
        options={[...(sampled ? [{ value: SAMPLES, label: 'Each sample' } as const] : []), ...periods]}
        chosen={over?.period ?? SAMPLES}
        onChoose={(value) =>
          onChange(value === SAMPLES ? null : { ...(over ?? firstPeriods(metric)), period: value })
        }
      />
      {over && over.indicatorId === null && summaries.length > 1 && (
        <WordRow
          name="Its value"
          options={summaries.map((value) => ({ value, label: SUMMARY_WORDS[value] }))}
          chosen={over.summary}
          onChoose={(summary) => onChange({ ...over, summary })}
        />
      )}
      {over && (
        <Words as="second" colour={palette.ink2}>
          {`Judged when the ${over.period} has closed and every metric in it has come to its end, an hour later at most, and again when late samples change it. With less than 75 % coverage it has no value: the alarm stays as it is.`}
        </Words>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8, paddingVertical: 6 } });
