import { useState } from 'react';
import { Field } from './Field';

interface OptionalNumberFieldProps {
  readonly label: string;
  readonly value: number | null;
  readonly onChange: (value: number | null) => void;
  readonly unit?: string;
}

/** A number that may be left empty. */
export function OptionalNumberField({ label, value, onChange, unit }: OptionalNumberFieldProps) {
  const [text, setText] = useState(value === null ? '' : String(value));
  const number = Number(text.trim().replace(',', '.').replace('\u2212', '-'));
  const wrong = text.trim() !== '' && !Number.isFinite(number);
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
        const typed = Number(next.trim().replace(',', '.').replace('\u2212', '-'));
        if (next.trim() === '') onChange(null);
        else if (Number.isFinite(typed)) onChange(typed);
      }}
    />
  );
}
