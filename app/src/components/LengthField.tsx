import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { NumberField } from './NumberField';
import { WordRow } from './WordRow';

const UNITS = [
  { value: 's', label: 's', ms: 1000 },
  { value: 'min', label: 'min', ms: 60_000 },
  { value: 'h', label: 'h', ms: 3_600_000 },
  { value: 'd', label: 'd', ms: 86_400_000 },
] as const;

interface LengthFieldProps {
  readonly label: string;
  /** ms */
  readonly value: number;
  readonly onChange: (ms: number) => void;
  readonly error?: string;
}

/** A length of time as a number and a unit. */
export function LengthField({ label, value, onChange, error }: LengthFieldProps) {
  const [unit, setUnit] = useState(() => UNITS.findLast(({ ms }) => value % ms === 0) ?? UNITS[0]);
  return (
    <View style={styles.field}>
      <NumberField
        label={label}
        value={value / unit.ms}
        unit={unit.label}
        error={error}
        onChange={(number) => onChange(Math.round(number * unit.ms))}
      />
      <WordRow
        name={`Unit of ${label.toLowerCase()}`}
        options={UNITS}
        chosen={unit.value}
        onChoose={(next) => {
          const chosen = UNITS.find(({ value: each }) => each === next)!;
          setUnit(chosen);
          onChange(Math.round((value / unit.ms) * chosen.ms));
        }}
      />
    </View>
  );
}

const styles = StyleSheet.create({ field: { flexGrow: 1, minWidth: 180 } });
