import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  decimalsFor,
  scaleEnds,
  type Measure,
  type Metric,
  type Readout,
  type ReadoutParts,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';
import { hasMoreBands, nameInGroups, withBandAt } from '@vivid-beacon/core/src/boards';
import { unitOfShown, unitsShown } from '../../boards/unitsShown';
import { WordRow } from '../../components/WordRow';
import { BandPanel } from './BandPanel';

interface BandSlotProps {
  readonly readout: Readout;
  readonly metrics: readonly Metric[];
  readonly window: WindowSpec;
  /** Of the first measure, as it was read. */
  readonly unit: string;
  readonly decimals: number;
  readonly onChange: (parts: ReadoutParts) => void;
}

/** A further band of a readout. */
interface FurtherBand {
  readonly label: string;
  readonly measure: Measure;
  readonly unit: string;
  readonly band: TargetBand | null;
  readonly parts: (band: TargetBand | null) => ReadoutParts;
}

/** The target bands of a readout: one; of a trend with lines of two units one for each; of groups one for each measure. */
export function BandSlot({ readout, metrics, window, unit, decimals, onChange }: BandSlotProps) {
  const [asked, setAsked] = useState(0);
  const further = furtherBands(readout, metrics);
  const name = hasMoreBands(readout) ? nameIn(readout.measures[0], metrics) : unit || 'no unit';
  const chosen = further[asked - 1] as FurtherBand | undefined;
  return (
    <View style={styles.slot}>
      {further.length > 0 && (
        <WordRow
          name={hasMoreBands(readout) ? 'Band of' : 'Band of the lines in'}
          options={[
            { value: '0', label: name },
            ...further.map(({ label }, i) => ({ value: String(i + 1), label })),
          ]}
          chosen={String(chosen ? asked : 0)}
          onChoose={(value) => setAsked(Number(value))}
        />
      )}
      {chosen ? (
        <BandPanel
          key={asked}
          measure={chosen.measure}
          band={chosen.band}
          window={window}
          unit={chosen.unit}
          decimals={decimalsFor(...scaleEnds(chosen.band, []))}
          onChange={(band) => onChange(chosen.parts(band))}
        />
      ) : (
        <BandPanel
          key="first"
          measure={readout.measures[0]}
          band={readout.band}
          window={window}
          unit={unit}
          decimals={decimals}
          onChange={(band) => onChange({ band })}
        />
      )}
    </View>
  );
}

function furtherBands(readout: Readout, metrics: readonly Metric[]): FurtherBand[] {
  if (hasMoreBands(readout)) {
    if (readout.groupBy === null) return [];
    return readout.measures.slice(1).map((measure, i) => ({
      label: nameIn(measure, metrics),
      measure,
      unit: unitOfShown(measure, metrics) ?? '',
      band: readout.moreBands[i] ?? null,
      parts: (band) => ({ moreBands: withBandAt(readout.moreBands, i + 1, band) }),
    }));
  }
  const [, other] = unitsShown(readout, metrics);
  if (!other || !('secondBand' in readout)) return [];
  return [
    {
      label: other.unit || 'no unit',
      ...other,
      band: readout.secondBand,
      parts: (secondBand) => ({ secondBand }),
    },
  ];
}

const nameIn = (measure: Measure, metrics: readonly Metric[]): string =>
  nameInGroups(measure, (id) => metrics.find((each) => each.id === id));

const styles = StyleSheet.create({ slot: { gap: 10 } });
