import { StyleSheet, View } from 'react-native';
import {
  GAUGE_MARKERS,
  SECTOR_PLACES,
  type GaugeMarker,
  type Readout,
  type ReadoutParts,
  type SectorPlace,
} from '@vivid-beacon/core';
import { NumberField } from '../../components/NumberField';
import { ToggleRow } from '../../components/ToggleRow';
import { WordRow } from '../../components/WordRow';

interface ScaleFieldsProps {
  readonly scale: Extract<Readout, { readonly scale: unknown }>['scale'];
  /** Is there a target band that can give the ends? */
  readonly banded: boolean;
  /** What fixed ends begin with. */
  readonly ends: readonly [number, number];
  readonly onChange: (parts: Pick<ReadoutParts, 'scale'>) => void;
}

const SECTOR_WORDS: Readonly<Record<SectorPlace, string>> = {
  on: 'sectors on the scale',
  inside: 'inside it',
  outside: 'outside it',
};

const DIAL = [
  { value: 'graduations', label: 'graduations' },
  { value: 'labels', label: 'numbers at them' },
] as const;
const MARKER_WORDS: Readonly<Record<GaugeMarker, string>> = {
  beam: 'a beam of light',
  line: 'a line',
  mark: 'a mark on the ring',
};

/** The scale of a form that has one: its ends, its direction and kind, and what only gauges or only trends have. */
export function ScaleFields({ scale, banded, ends, onChange }: ScaleFieldsProps) {
  const change = (part: NonNullable<ReadoutParts['scale']>): void =>
    onChange({ scale: { ...scale, ...part } });
  const mayBreak = 'broken' in scale;
  return (
    <>
      <WordRow
        name="Ends of the scale"
        options={[
          { value: 'data', label: 'ends from the data' },
          ...(banded ? [{ value: 'target', label: 'from the target band' }] : []),
          { value: 'fixed', label: 'fixed' },
        ]}
        chosen={scale.ends ? 'fixed' : scale.fromTarget && banded ? 'target' : 'data'}
        onChoose={(value) =>
          change({
            fromTarget: value === 'target',
            ends: value === 'fixed' ? (scale.ends ?? [...ends]) : null,
          })
        }
      />
      <ToggleRow
        name="Scale"
        options={[
          { value: 'reversed', label: 'reversed' },
          { value: 'logarithmic', label: 'logarithmic' },
          ...(mayBreak ? [{ value: 'broken' as const, label: 'broken where values lie far apart' }] : []),
        ]}
        chosen={[
          ...(scale.reversed ? ['reversed' as const] : []),
          ...(scale.logarithmic ? ['logarithmic' as const] : []),
          ...(mayBreak && scale.broken ? ['broken' as const] : []),
        ]}
        onChange={(chosen) =>
          change({
            reversed: chosen.includes('reversed'),
            logarithmic: chosen.includes('logarithmic'),
            ...(mayBreak && { broken: chosen.includes('broken') }),
          })
        }
      />
      {'sectors' in scale && (
        <WordRow
          name="Sectors of the band"
          options={SECTOR_PLACES.map((value) => ({ value, label: SECTOR_WORDS[value] }))}
          chosen={scale.sectors}
          onChoose={(sectors) => change({ sectors })}
        />
      )}
      {'marker' in scale && (
        <>
          <ToggleRow
            name="On the dial"
            options={DIAL}
            chosen={DIAL.flatMap(({ value }) => (scale[value] ? [value] : []))}
            onChange={(chosen) =>
              change({ graduations: chosen.includes('graduations'), labels: chosen.includes('labels') })
            }
          />
          <WordRow
            name="Marker"
            options={GAUGE_MARKERS.map((value) => ({ value, label: MARKER_WORDS[value] }))}
            chosen={scale.marker}
            onChoose={(marker) => change({ marker })}
          />
        </>
      )}
      {scale.ends && (
        <View style={styles.pair}>
          <NumberField
            label="From"
            value={scale.ends[0]}
            onChange={(low) => change({ ends: [low, scale.ends![1]] })}
          />
          <NumberField
            label="To"
            value={scale.ends[1]}
            error={scale.ends[0] >= scale.ends[1] ? 'must lie above the start' : undefined}
            onChange={(high) => change({ ends: [scale.ends![0], high] })}
          />
        </View>
      )}
    </>
  );
}

const styles = StyleSheet.create({ pair: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' } });
