import { StyleSheet, View } from 'react-native';
import { DIRECTIONS, emptyReadout, type IndicatorDefinition, type Judge } from '@vivid-beacon/core';
import { NumberField } from '../../components/NumberField';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { BandPanel } from '../editor/BandPanel';
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
] as const;
const BETTER = DIRECTIONS.map((value) => ({
  value,
  label: `${value[0].toUpperCase()}${value.slice(1)} is better`,
}));

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
      {judge.kind === 'limits' ? (
        <BandPanel
          readout={{ ...emptyReadout('draft', 'gauge'), measures: [measure], band: judge.band }}
          window={window}
          unit={unit}
          decimals={decimals}
          onChange={(band) => band && onChange({ kind: 'limits', band })}
        />
      ) : (
        <>
          <WordRow
            name="Direction"
            options={BETTER}
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
          <Words as="second" colour={palette.ink2}>
            Short of 95 % is further from the target, on its bad side, than 5 % of its size: right for
            negative targets too. A target of zero has no size, so it is reached or it is Breach. A value on
            the threshold has the better level; equal shares leave two levels.
          </Words>
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: 8 },
  pair: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 },
});
