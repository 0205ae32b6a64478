import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  decimalsFor,
  scaleEnds,
  type Metric,
  type Readout,
  type ReadoutParts,
  type WindowSpec,
} from '@vivid-beacon/core';
import { unitsShown } from '../../boards/unitsShown';
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

/** The target band of a readout; of a trend with lines of two units one for each. */
export function BandSlot({ readout, metrics, window, unit, decimals, onChange }: BandSlotProps) {
  const [asked, setAsked] = useState<'first' | 'second'>('first');
  const [, other] = unitsShown(readout, metrics);
  const second = other && 'secondBand' in readout ? { ...other, band: readout.secondBand } : undefined;
  const onSecond = second !== undefined && asked === 'second';
  return (
    <View style={styles.slot}>
      {second && (
        <WordRow
          name="Band of the lines in"
          options={[
            { value: 'first', label: unit || 'no unit' },
            { value: 'second', label: second.unit || 'no unit' },
          ]}
          chosen={asked}
          onChoose={setAsked}
        />
      )}
      {onSecond ? (
        <BandPanel
          key="second"
          measure={second.measure}
          band={second.band}
          window={window}
          unit={second.unit}
          decimals={decimalsFor(...scaleEnds(second.band, []))}
          onChange={(secondBand) => onChange({ secondBand })}
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

const styles = StyleSheet.create({ slot: { gap: 10 } });
