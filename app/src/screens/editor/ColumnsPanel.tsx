import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Metric, ReadoutOf, ReadoutParts } from '@vivid-beacon/core';
import { parseExpression } from '@vivid-beacon/core/src/expressions';
import {
  BESIDE,
  letterOf,
  nameInGroups,
  TABLE_NOTES,
  type Beside,
  type TableNote,
} from '@vivid-beacon/core/src/boards';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { IconButton } from '../../components/IconButton';
import { CloseIcon } from '../../components/icons';
import { Row } from '../../components/Row';
import { ToggleRow } from '../../components/ToggleRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

const BESIDE_WORDS: Readonly<Record<Beside, string>> = {
  share: 'share of the total',
  rank: 'rank',
  change: 'change against the reference',
  distance: 'distance from its target',
  daily: 'the average of a day',
  recent: 'the last days',
  recentDaily: 'the average of a day, of the last days',
  trend: 'a small trend',
};

const NOTE_WORDS: Readonly<Record<TableNote, string>> = {
  stops: 'hours stopped, with reasons',
  remarks: 'remarks',
};

interface ColumnsPanelProps {
  readonly readout: ReadoutOf<'table'>;
  readonly metrics: ReadonlyMap<string, Metric>;
  readonly onChange: (parts: ReadoutParts) => void;
}

/** What stands beside each measure of a table, and the columns worked out of them. */
export function ColumnsPanel({ readout, metrics, onChange }: ColumnsPanelProps) {
  const { beside, computed, measures } = readout;
  const nameOf = (i: number): string => nameInGroups(measures[i], (id) => metrics.get(id));
  const put = (measure: number, shown: readonly Beside[]): void =>
    onChange({
      beside: [
        ...beside.filter((each) => each.measure !== measure),
        ...shown.map((show) => ({ measure, show })),
      ],
    });
  return (
    <View style={styles.panel}>
      {measures.map((_, measure) => (
        <View key={measure}>
          <Words as="rowTitle">{`Beside ${letterOf(measure)}: ${nameOf(measure)}`}</Words>
          <ToggleRow
            name={`Beside ${nameOf(measure)}`}
            options={BESIDE.map((show) => ({ value: show, label: BESIDE_WORDS[show] }))}
            chosen={beside.flatMap((each) => (each.measure === measure ? [each.show] : []))}
            onChange={(shown) => put(measure, shown)}
          />
        </View>
      ))}
      <Words as="rowTitle">What the logs say of each row</Words>
      <ToggleRow
        name="What the logs say of each row"
        options={TABLE_NOTES.map((note) => ({ value: note, label: NOTE_WORDS[note] }))}
        chosen={readout.notes}
        onChange={(notes) => onChange({ notes })}
      />
      <Words as="rowTitle">Columns worked out of them</Words>
      {computed.map(({ name, expression, unit }, i) => (
        <Row
          key={`${i} ${name}`}
          title={[name, unit].filter(Boolean).join(', ')}
          second={expression}
          right={
            <IconButton
              icon={CloseIcon}
              name={`Remove ${name}`}
              onPress={() => onChange({ computed: computed.filter((_each, at) => at !== i) })}
            />
          }
        />
      ))}
      <NewColumn onAdd={(column) => onChange({ computed: [...computed, column] })} />
    </View>
  );
}

/** A column that is written as an expression over a, b, c … */
function NewColumn({ onAdd }: { readonly onAdd: (column: ReadoutOf<'table'>['computed'][number]) => void }) {
  const palette = usePalette();
  const [name, setName] = useState('');
  const [expression, setExpression] = useState('');
  const [unit, setUnit] = useState('');
  const wrong = expression.trim() === '' ? null : problemOf(expression);
  const ready = name.trim() !== '' && expression.trim() !== '' && wrong === null;
  return (
    <View style={styles.fields}>
      <Words as="second" colour={palette.ink2}>
        The measures are called a, b, c in their order: (a - b) / a * 100.
      </Words>
      <Field label="Name of the column" value={name} onChange={setName} />
      <Field label="Expression" value={expression} error={wrong ?? undefined} onChange={setExpression} />
      <Field label="Unit (may be empty)" value={unit} onChange={setUnit} />
      <Button
        label="Add the column"
        disabled={!ready}
        onPress={() => {
          onAdd({ name: name.trim(), expression: expression.trim(), unit: unit.trim() });
          setName('');
          setExpression('');
          setUnit('');
        }}
      />
    </View>
  );
}

function problemOf(expression: string): string | null {
  try {
    parseExpression(expression);
    return null;
  } catch (error) {
    return (error as Error).message;
  }
}

const styles = StyleSheet.create({ panel: { gap: 10 }, fields: { gap: 8 } });
