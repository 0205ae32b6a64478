import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { fieldText } from '@vivid-beacon/core';
import { Field } from './Field';
import { readTyped } from './readTyped';
import { UnderstoodAs } from './UnderstoodAs';

interface OptionalNumberFieldProps {
  readonly label: string;
  readonly value: number | null;
  readonly onChange: (value: number | null) => void;
  readonly unit?: string;
}

/** A number that may be left empty. */
export function OptionalNumberField({ label, value, onChange, unit }: OptionalNumberFieldProps) {
  const [text, setText] = useState(value === null ? '' : fieldText(value));
  const wrong = text.trim() !== '' && readTyped(text) === null;
  const type = (next: string): void => {
    setText(next);
    const typed = readTyped(next);
    if (next.trim() === '' || typed !== null) onChange(typed);
  };
  return (
    <View style={styles.field}>
      <Field
        label={label}
        value={text}
        inputMode="decimal"
        after={unit}
        placeholder="none"
        error={wrong ? `"${text}" is not a number` : undefined}
        onChange={type}
      />
      <UnderstoodAs text={text} unit={unit} onTake={type} />
    </View>
  );
}

const styles = StyleSheet.create({ field: { flexGrow: 1, flexShrink: 1, minWidth: 0, gap: 2 } });
