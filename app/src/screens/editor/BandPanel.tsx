import { StyleSheet, View } from 'react-native';
import {
  formatNumber,
  customThresholdsOf,
  scaleEnds,
  type Measure,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';
import { useDistribution } from '../../api/queries';
import { BandSetter } from '../../charts/BandSetter';
import { bandLimits, limitAt, sharesByLevel } from '../../charts/histogram';
import { QueryResult } from '../../components/QueryResult';
import { LampWord } from '../../components/LampWord';
import { NumberField } from '../../components/NumberField';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { BAND_CHOICES } from '../../bands/directionWords';
import { firstBand } from '../../bands/firstBand';
import { usePalette } from '../../theme/useTheme';
import { problemOf } from './bandProblem';
import { CustomThresholdList } from './CustomThresholdList';

interface BandPanelProps {
  /** What is judged; none while nothing is chosen. */
  readonly measure: Measure | undefined;
  readonly band: TargetBand | null;
  readonly window: WindowSpec;
  readonly unit: string;
  readonly decimals: number;
  readonly onChange: (band: TargetBand | null) => void;
}

const CHOICES = [{ value: 'none' as const, label: 'No band' }, ...BAND_CHOICES];

/** Which direction is better, and where the limits lie, set on past values. */
export function BandPanel({ measure, band, window, unit, decimals, onChange }: BandPanelProps) {
  const palette = usePalette();
  const past = useDistribution(measure ? { measure, window } : null);
  const values = past.data?.values ?? [];
  const choose = (direction: TargetBand['direction'] | 'none'): void => {
    if (direction === 'none') onChange(null);
    // Custom thresholds go on from the band there is, so nothing that was set is lost.
    else if (direction === 'cuts' && band)
      onChange({ direction, ...customThresholdsOf(band), target: band.target });
    else onChange(firstBand(values, direction));
  };
  const wrong = band && problemOf(band);
  const shares = band && values.length > 0 ? sharesByLevel(values, band) : null;
  return (
    <View style={styles.panel}>
      <WordRow name="Direction" options={CHOICES} chosen={band?.direction ?? 'none'} onChoose={choose} />
      <QueryResult query={past} reading="Loading past values">
        {({ bucket }) => (
          <Words as="second" colour={palette.ink2}>
            {values.length === 0
              ? 'No past values yet: type the limits.'
              : `${formatNumber(values.length, 0)} past values, one ${bucket === 'hour' ? 'an hour' : `a ${bucket}`}${band ? '' : '. Choose which direction is better.'}`}
          </Words>
        )}
      </QueryResult>
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
          {band.direction === 'cuts' && (
            <CustomThresholdList
              own={band}
              unit={unit}
              ends={scaleEnds(band, values.length > 0 ? [values[0], values[values.length - 1]] : [])}
              problem={wrong}
              onChange={(own) => onChange({ ...band, ...own })}
            />
          )}
          <View style={styles.fields}>
            {(band.direction === 'cuts' ? [] : bandLimits(band)).map(({ key, name, value }) => (
              <View key={key} style={styles.field}>
                <NumberField
                  label={name}
                  unit={unit}
                  value={value}
                  error={wrong?.path === `band.${key}` ? wrong.message : undefined}
                  onChange={(next) => onChange(limitAt(band, key, next))}
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

const styles = StyleSheet.create({
  panel: { gap: 10 },
  shares: { flexDirection: 'row', gap: 16 },
  share: { flexDirection: 'row', alignItems: 'center', gap: 6 },
  fields: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
  field: { flexBasis: 150, flexGrow: 1 },
});
