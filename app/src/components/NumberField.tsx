import { useEffect, useState } from 'react';
import { Field } from './Field';
import { readTyped } from './readTyped';

interface NumberFieldProps {
  readonly label: string;
  readonly value: number;
  readonly onChange: (value: number) => void;
  readonly unit?: string;
  readonly error?: string;
}

/** A number that is typed; what is not a number yet stays as typed and is named. */
export function NumberField({ label, value, onChange, unit, error }: NumberFieldProps) {
  const [text, setText] = useState(String(value));
  const typed = readTyped(text);
  useEffect(() => {
    if (readTyped(text) !== value) setText(String(value));
    // Only a change from outside replaces what is typed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [value]);
  return (
    <Field
      label={label}
      value={text}
      inputMode="decimal"
      after={unit}
      error={typed === null ? `"${text}" is not a number` : error}
      onChange={(next) => {
        setText(next);
        const number = readTyped(next);
        if (number !== null) onChange(number);
      }}
    />
  );
}
