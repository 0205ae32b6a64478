import { StyleSheet, View } from 'react-native';
import type { Schema } from 'yup';
import {
  askOf,
  DISPLAY_SCALES,
  type DisplayScale,
  type Metric,
  type Readout,
  type ReadoutParts,
} from '@vivid-beacon/core';
import { formOf, showsWords } from '@vivid-beacon/core/src/boards';
import { Field } from '../../components/Field';
import { OptionalNumberField } from '../../components/OptionalNumberField';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { ColumnsPanel } from './ColumnsPanel';
import { PlacePick } from './PlacePick';
import { ScaleFields } from './ScaleFields';

interface AppearancePanelProps {
  readonly readout: Readout;
  readonly metrics: ReadonlyMap<string, Metric>;
  /** What the title and the footnote are while they are made from the choices. */
  readonly automatic: { readonly title: string; readonly footnote: string | null };
  readonly ends: readonly [number, number];
  readonly onChange: (parts: ReadoutParts) => void;
}

const DISPLAY_WORDS: Readonly<Record<DisplayScale, string>> = {
  units: 'as they are',
  thousands: 'in thousands',
  millions: 'in millions',
};

/** How it is shown: title, footnote, decimals, and what its form has to be chosen. */
export function AppearancePanel({ readout, metrics, automatic, ends, onChange }: AppearancePanelProps) {
  const palette = usePalette();
  return (
    <View style={styles.panel}>
      <Field
        label="Title (empty: made from the choices)"
        value={readout.title ?? ''}
        placeholder={automatic.title}
        onChange={(text) => onChange({ title: text === '' ? null : text })}
      />
      {!showsWords(readout) && (
        <>
          <Field
            label="Footnote (empty: states the subset)"
            value={readout.footnote ?? ''}
            placeholder={automatic.footnote ?? 'nothing is left out'}
            onChange={(text) => onChange({ footnote: text === '' ? null : text })}
          />
          <PlacePick link={readout.link} onChange={(link) => onChange({ link })} />
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
      <Asked readout={readout} onChange={onChange} />
      {'computed' in readout && <ColumnsPanel readout={readout} metrics={metrics} onChange={onChange} />}
      {'scale' in readout && (
        <ScaleFields scale={readout.scale} banded={readout.band !== null} ends={ends} onChange={onChange} />
      )}
      {'cumulative' in readout && readout.cumulative && readout.bucket === null && (
        <Words as="second" colour={palette.ink2}>
          A running total adds one value a period; the period is chosen by the length of the window.
        </Words>
      )}
    </View>
  );
}

/** What a form has to be chosen beside what every readout has, as its fields say. */
function Asked({ readout, onChange }: Pick<AppearancePanelProps, 'readout' | 'onChange'>) {
  const chosen = new Map<string, unknown>(Object.entries(readout));
  return Object.entries(formOf(readout.form).fields).map(([name, field]) => {
    const ask = askOf(field);
    if (!ask || Object.entries(ask.unless ?? {}).some(([other, value]) => chosen.get(other) === value))
      return null;
    const now = chosen.get(name);
    if (ask.kind === 'number') {
      return (
        <OptionalNumberField
          key={name}
          label={ask.label}
          unit={ask.unit}
          value={now as number | null}
          onChange={(value) => {
            // A number that the field does not take stays as it was.
            if ((field as Schema).isValidSync(value)) onChange({ [name]: value });
          }}
        />
      );
    }
    return (
      <WordRow
        key={name}
        name={ask.label}
        options={Object.entries(ask.words).map(([value, label]) => ({ value, label }))}
        chosen={String(now)}
        onChoose={(value) => onChange({ [name]: typeof now === 'boolean' ? value === 'true' : value })}
      />
    );
  });
}

const styles = StyleSheet.create({
  panel: { gap: 10 },
});
