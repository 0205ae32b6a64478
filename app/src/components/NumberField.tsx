import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { fieldText } from '@vivid-beacon/core';
import { Field } from './Field';
import { readTyped } from './readTyped';
import { UnderstoodAs } from './UnderstoodAs';

interface NumberFieldProps {
  readonly label: string;
  readonly value: number;
  readonly onChange: (value: number) => void;
  readonly unit?: string;
  readonly error?: string;
}

/** A number that is typed; what is not a number yet stays as typed and is named. */
export function NumberField({ label, value, onChange, unit, error }: NumberFieldProps) {
  const [text, setText] = useState(fieldText(value));
  const typed = readTyped(text);
  useEffect(() => {
    if (readTyped(text) !== value) setText(fieldText(value));
    // Only a change from outside replaces what is typed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [value]);
  const type = (next: string): void => {
    setText(next);
    const number = readTyped(next);
    if (number !== null) onChange(number);
  };
  return (
    <View style={styles.field}>
      <Field
        label={label}
        value={text}
        inputMode="decimal"
        after={unit}
        error={typed === null ? `"${text}" is not a number` : error}
        onChange={type}
      />
      <UnderstoodAs text={text} unit={unit} onTake={type} />
    </View>
  );
}

const styles = StyleSheet.create({ field: { flexGrow: 1, flexShrink: 1, minWidth: 0, gap: 2 } });
