import { StyleSheet, View } from 'react-native';
import type { IndicatorDefinition, Judge } from '@vivid-beacon/core';
import { NumberField } from '../../components/NumberField';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { DIRECTION_CHOICES } from '../../bands/directionWords';
import { BandPanel } from '../editor/BandPanel';
import { problemOfThresholds } from '../editor/bandProblem';
import { CustomThresholdList } from '../editor/CustomThresholdList';
import { otherJudge } from './indicatorDraft';

interface JudgePanelProps {
  readonly definition: IndicatorDefinition;
  readonly unit: string;
  readonly usual: number;
  readonly onChange: (judge: Judge) => void;
}

const WAYS = [
  { value: 'limits', label: 'Limits in the unit' },
  { value: 'target', label: 'Shares of the target' },
  { value: 'targetCuts', label: 'Custom shares' },
] as const;
const SHARE_ENDS = [80, 120] as const;

/** How a value becomes a level: by limits in its unit, or by how much of the target it reaches. */
export function JudgePanel({ definition, unit, usual, onChange }: JudgePanelProps) {
  const palette = usePalette();
  const { judge, measure, window, decimals } = definition;
  return (
    <View style={styles.panel}>
      <WordRow
        name="Judged by"
        options={WAYS}
        chosen={judge.kind}
        onChoose={(kind) => onChange(otherJudge(judge, kind, usual))}
      />
      {judge.kind === 'limits' && (
        <BandPanel
          measure={measure}
          band={judge.band}
          window={window}
          unit={unit}
          decimals={decimals}
          onChange={(band) => band && onChange({ kind: 'limits', band })}
        />
      )}
      {judge.kind === 'targetCuts' && (
        <CustomThresholdList
          own={judge}
          unit="% of the target"
          ends={SHARE_ENDS}
          problem={problemOfThresholds(judge)}
          onChange={(own) => onChange({ ...judge, ...own })}
        />
      )}
      {judge.kind === 'target' && (
        <>
          <WordRow
            name="Direction"
            options={DIRECTION_CHOICES}
            chosen={judge.direction}
            onChoose={(direction) => onChange({ ...judge, direction })}
          />
          <View style={styles.pair}>
            <NumberField
              label="Clear from"
              unit="% of the target"
              value={judge.clear}
              onChange={(clear) => onChange({ ...judge, clear })}
            />
            <NumberField
              label="Caution from"
              unit="%"
              value={judge.caution}
              error={judge.caution > judge.clear ? 'At or before Clear' : undefined}
              onChange={(caution) => onChange({ ...judge, caution })}
            />
          </View>
        </>
      )}
      {judge.kind !== 'limits' && (
        <Words as="second" colour={palette.ink2}>
          Short of 95 % means missing the target, on its bad side, by more than 5 % of its size; this also
          holds for negative targets. A target of zero has no size: it is either reached or missed. A value on
          a threshold gets the better level{judge.kind === 'target' ? '; equal shares leave two levels' : ''}.
        </Words>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: 8 },
  pair: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 },
});
