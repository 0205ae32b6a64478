import { useState } from 'react';
import { Field } from './Field';
import { readTyped } from './readTyped';

interface OptionalNumberFieldProps {
  readonly label: string;
  readonly value: number | null;
  readonly onChange: (value: number | null) => void;
  readonly unit?: string;
}

/** A number that may be left empty. */
export function OptionalNumberField({ label, value, onChange, unit }: OptionalNumberFieldProps) {
  const [text, setText] = useState(value === null ? '' : String(value));
  const wrong = text.trim() !== '' && readTyped(text) === null;
  return (
    <Field
      label={label}
      value={text}
      inputMode="decimal"
      after={unit}
      placeholder="none"
      error={wrong ? `"${text}" is not a number` : undefined}
      onChange={(next) => {
        setText(next);
        const typed = readTyped(next);
        if (next.trim() === '' || typed !== null) onChange(typed);
      }}
    />
  );
}
