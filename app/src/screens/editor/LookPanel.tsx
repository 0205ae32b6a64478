import { StyleSheet, View } from 'react-native';
import {
  DISPLAY_SCALES,
  SECTOR_PLACES,
  TREND_MARKS,
  type DisplayScale,
  type Readout,
  type SectorPlace,
  type TrendMark,
} from '@vivid-beacon/core';
import { Field } from '../../components/Field';
import { NumberField } from '../../components/NumberField';
import { safeLink } from '../../components/safeLink';
import { ToggleRow } from '../../components/ToggleRow';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface LookPanelProps {
  readonly readout: Readout;
  /** What the title and the footnote are while they are made from the choices. */
  readonly automatic: { readonly title: string; readonly footnote: string | null };
  readonly ends: readonly [number, number];
  readonly onChange: (part: Partial<Omit<Readout, 'id' | 'form' | 'measures'>>) => void;
}

const MARK_WORDS: Readonly<Record<TrendMark, string>> = {
  line: 'Line',
  steps: 'Steps',
  area: 'Area',
  columns: 'Columns',
  stacked: 'Stacked areas',
};
const SECTOR_WORDS: Readonly<Record<SectorPlace, string>> = {
  on: 'sectors on the scale',
  inside: 'inside it',
  outside: 'outside it',
};
const DISPLAY_WORDS: Readonly<Record<DisplayScale, string>> = {
  units: 'as they are',
  thousands: 'in thousands',
  millions: 'in millions',
};

/** How it is shown: title, footnote, decimals, scale, and the marks of a trend. */
export function LookPanel({ readout, automatic, ends, onChange }: LookPanelProps) {
  const palette = usePalette();
  const { scale, form } = readout;
  const scaled = form === 'gauge' || form === 'straight' || form === 'tank' || form === 'trend';
  return (
    <View style={styles.panel}>
      <Field
        label="Title (empty: made from the choices)"
        value={readout.title ?? ''}
        placeholder={automatic.title}
        onChange={(text) => onChange({ title: text === '' ? null : text })}
      />
      {form !== 'note' && (
        <>
          <Field
            label="Footnote (empty: states the subset)"
            value={readout.footnote ?? ''}
            placeholder={automatic.footnote ?? 'nothing is left out'}
            onChange={(text) => onChange({ footnote: text === '' ? null : text })}
          />
          <Field
            label="Its numbers also lead to"
            value={readout.link ?? ''}
            placeholder="a board such as /boards/3, or an address"
            error={
              readout.link && !safeLink(readout.link)
                ? 'This is no page of ours, no web and no mail address.'
                : undefined
            }
            onChange={(text) => onChange({ link: text.trim() === '' ? null : text })}
          />
          <WordRow
            name="Decimals"
            options={[
              { value: 'auto', label: 'Automatic' },
              ...['0', '1', '2', '3'].map((value) => ({ value, label: `${value} decimals` })),
            ]}
            chosen={readout.decimals === null ? 'auto' : String(readout.decimals)}
            onChoose={(value) => onChange({ decimals: value === 'auto' ? null : Number(value) })}
          />
          <WordRow
            name="Numbers"
            options={DISPLAY_SCALES.map((value) => ({ value, label: DISPLAY_WORDS[value] }))}
            chosen={readout.display}
            onChoose={(display) => onChange({ display })}
          />
        </>
      )}
      {form === 'trend' && (
        <>
          <WordRow
            name="Drawn as"
            options={TREND_MARKS.map((value) => ({ value, label: MARK_WORDS[value] }))}
            chosen={readout.mark}
            onChoose={(mark) => onChange({ mark })}
          />
          <WordRow
            name="Values"
            options={[
              { value: 'each', label: 'each on its own' },
              { value: 'running', label: 'running total' },
            ]}
            chosen={readout.cumulative ? 'running' : 'each'}
            onChoose={(value) => onChange({ cumulative: value === 'running' })}
          />
          {readout.mark !== 'columns' && (
            <WordRow
              name="Numbers at points"
              options={[
                { value: 'none', label: 'no numbers at points' },
                { value: 'fit', label: 'as many as fit' },
              ]}
              chosen={readout.pointLabels ? 'fit' : 'none'}
              onChoose={(value) => onChange({ pointLabels: value === 'fit' })}
            />
          )}
        </>
      )}
      {scaled && (
        <>
          <WordRow
            name="Ends of the scale"
            options={[
              { value: 'data', label: 'ends from the data' },
              ...(readout.band ? [{ value: 'target', label: 'from the target band' }] : []),
              { value: 'fixed', label: 'fixed' },
            ]}
            chosen={scale.ends ? 'fixed' : scale.fromTarget && readout.band ? 'target' : 'data'}
            onChoose={(value) =>
              onChange({
                scale: {
                  ...scale,
                  fromTarget: value === 'target',
                  ends: value === 'fixed' ? (scale.ends ?? ends) : null,
                },
              })
            }
          />
          <ToggleRow
            name="Scale"
            options={[
              { value: 'reversed', label: 'reversed' },
              { value: 'logarithmic', label: 'logarithmic' },
              ...(form === 'trend'
                ? [{ value: 'broken' as const, label: 'broken where values lie far apart' }]
                : []),
            ]}
            chosen={[
              ...(scale.reversed ? ['reversed' as const] : []),
              ...(scale.logarithmic ? ['logarithmic' as const] : []),
              ...(scale.broken && form === 'trend' ? ['broken' as const] : []),
            ]}
            onChange={(chosen) =>
              onChange({
                scale: {
                  ...scale,
                  reversed: chosen.includes('reversed'),
                  logarithmic: chosen.includes('logarithmic'),
                  broken: chosen.includes('broken'),
                },
              })
            }
          />
          {form === 'gauge' && (
            <WordRow
              name="Sectors of the band"
              options={SECTOR_PLACES.map((value) => ({ value, label: SECTOR_WORDS[value] }))}
              chosen={scale.sectors}
              onChoose={(sectors) => onChange({ scale: { ...scale, sectors } })}
            />
          )}
          {scale.ends && (
            <View style={styles.pair}>
              <NumberField
                label="From"
                value={scale.ends[0]}
                onChange={(low) => onChange({ scale: { ...scale, ends: [low, scale.ends![1]] } })}
              />
              <NumberField
                label="To"
                value={scale.ends[1]}
                error={scale.ends[0] >= scale.ends[1] ? 'must lie above the start' : undefined}
                onChange={(high) => onChange({ scale: { ...scale, ends: [scale.ends![0], high] } })}
              />
            </View>
          )}
        </>
      )}
      {form === 'trend' && readout.bucket === null && readout.cumulative && (
        <Words as="second" colour={palette.ink2}>
          A running total adds one value a period; the period is chosen by the length of the window.
        </Words>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: 10 },
  pair: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
});
