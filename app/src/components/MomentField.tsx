import { useId } from 'react';
import { DateTime } from 'luxon';
import { StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { TYPE } from '../theme/type';
import { Words } from './Words';

interface MomentFieldProps {
  readonly label: string;
  /** ms since the Unix epoch; null = not given. */
  readonly value: number | null;
  /** The wall clock that is shown and typed. */
  readonly zone: string;
  readonly onChange: (value: number | null) => void;
  readonly error?: string;
}

/** A date with a time of day, chosen with what the device offers for it. */
export function MomentField({ label, value, zone, onChange, error }: MomentFieldProps) {
  const palette = usePalette();
  const id = useId();
  const shown = value === null ? '' : DateTime.fromMillis(value, { zone }).toFormat("yyyy-MM-dd'T'HH:mm");
  return (
    <View style={styles.field}>
      <label htmlFor={id}>
        <Words as="second" colour={palette.ink2}>
          {label}
        </Words>
      </label>
      <input
        id={id}
        type="datetime-local"
        value={shown}
        aria-invalid={error !== undefined}
        onChange={(event) => {
          const at = DateTime.fromISO(event.currentTarget.value, { zone });
          onChange(at.isValid ? at.toMillis() : null);
        }}
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

const styles = StyleSheet.create({ field: { gap: 4, flexGrow: 1, flexShrink: 1, minWidth: 190 } });
