import { StyleSheet, View } from 'react-native';
import {
  checkBand,
  DIRECTIONS,
  formatNumber,
  type BeaconError,
  type Direction,
  type Readout,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';
import { useDistribution } from '../../api/queries';
import { BandSetter } from '../../charts/BandSetter';
import { bandLimits, sharesByLevel } from '../../charts/histogram';
import { Answer } from '../../components/Answer';
import { LampWord } from '../../components/LampWord';
import { NumberField } from '../../components/NumberField';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { firstBand } from '../../stores/readoutDraftStore';
import { usePalette } from '../../theme/useTheme';

interface BandPanelProps {
  readonly readout: Readout;
  readonly window: WindowSpec;
  readonly unit: string;
  readonly decimals: number;
  readonly onChange: (band: TargetBand | null) => void;
}

const WORDS: Readonly<Record<Direction, string>> = {
  lower: 'Lower is better',
  higher: 'Higher is better',
  inside: 'Inside is better',
};
const CHOICES = [
  { value: 'none' as const, label: 'No band' },
  ...DIRECTIONS.map((value) => ({ value, label: WORDS[value] })),
];

/** Which direction is better, and where the limits lie, set on past values. */
export function BandPanel({ readout, window, unit, decimals, onChange }: BandPanelProps) {
  const palette = usePalette();
  const past = useDistribution(readout.measures[0] ? { measure: readout.measures[0], window } : null);
  const values = past.data?.values ?? [];
  const { band } = readout;
  const choose = (direction: Direction | 'none'): void =>
    onChange(direction === 'none' ? null : firstBand(values, direction));
  const wrong = band && problemOf(band);
  const shares = band && values.length > 0 ? sharesByLevel(values, band) : null;
  return (
    <View style={styles.panel}>
      <WordRow name="Direction" options={CHOICES} chosen={band?.direction ?? 'none'} onChoose={choose} />
      <Answer query={past} reading="Reading past values">
        {({ bucket }) => (
          <Words as="second" colour={palette.ink2}>
            {values.length === 0
              ? 'No past values yet: type the limits.'
              : `${formatNumber(values.length, 0)} past values, one ${bucket === 'hour' ? 'an hour' : `a ${bucket}`}${band ? '' : '. Choose which direction is better.'}`}
          </Words>
        )}
      </Answer>
      {band && (
        <>
          <BandSetter values={values} band={band} decimals={decimals} unit={unit} onChange={onChange} />
          {shares && (
            <View style={styles.shares}>
              {(['clear', 'caution', 'breach'] as const).map((level) => (
                <View key={level} style={styles.share}>
                  <LampWord level={level} />
                  <Words
                    as="second"
                    colour={palette.ink2}
                  >{`${formatNumber(shares[level] * 100, 0)} %`}</Words>
                </View>
              ))}
            </View>
          )}
          <View style={styles.fields}>
            {bandLimits(band).map(({ key, name, value }) => (
              <View key={key} style={styles.field}>
                <NumberField
                  label={name}
                  unit={unit}
                  value={value}
                  error={wrong?.path === `band.${key}` ? wrong.message : undefined}
                  onChange={(next) => onChange({ ...band, [key]: next } as TargetBand)}
                />
              </View>
            ))}
            <View style={styles.field}>
              <NumberField
                label="Target"
                unit={unit}
                value={band.target ?? 0}
                onChange={(target) => onChange({ ...band, target })}
              />
            </View>
          </View>
        </>
      )}
    </View>
  );
}

/** What is wrong with a band, if anything. */
export function problemOf(band: TargetBand): BeaconError | null {
  try {
    checkBand(band);
    return null;
  } catch (error) {
    return error as BeaconError;
  }
}

const styles = StyleSheet.create({
  panel: { gap: 10 },
  shares: { flexDirection: 'row', gap: 16 },
  share: { flexDirection: 'row', alignItems: 'center', gap: 6 },
  fields: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
  field: { flexBasis: 150, flexGrow: 1 },
});
