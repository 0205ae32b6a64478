import { useId } from 'react';
import { StyleSheet, View } from 'react-native';
import { TYPE } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

interface DeviceFieldProps {
  readonly type: 'date' | 'time' | 'datetime-local';
  readonly label: string;
  /** As the HTML standard writes it: "2026-11-19", "06:30", "2026-11-19T06:30". */
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly error?: string;
  /** px. */
  readonly minWidth: number;
}

/** A date or a time, chosen with what the device offers for it: a calendar, a clock. */
export function DeviceField({ type, label, value, onChange, error, minWidth }: DeviceFieldProps) {
  const palette = usePalette();
  const id = useId();
  return (
    <View style={[styles.field, { minWidth }]}>
      <label htmlFor={id}>
        <Words as="second" colour={palette.ink2}>
          {label}
        </Words>
      </label>
      <input
        id={id}
        type={type}
        value={value}
        aria-invalid={error !== undefined}
        onChange={(event) => onChange(event.currentTarget.value)}
        style={{
          fontFamily: TYPE.body.fontFamily,
          fontSize: TYPE.body.fontSize,
          color: palette.ink,
          backgroundColor: palette.sheet,
          border: `1px solid ${error ? palette.breach : palette.line2}`,
          borderRadius: 10,
          minHeight: 44,
          padding: '0 12px',
          boxSizing: 'border-box',
          width: '100%',
          colorScheme: 'inherit',
        }}
      />
      {error && (
        <Words as="second" colour={palette.breachT}>
          {error}
        </Words>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ field: { gap: 4, flexGrow: 1, flexShrink: 1 } });
