import { useId } from 'react';
import { StyleSheet, View } from 'react-native';
import { TYPE } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

interface ClockFieldProps {
  readonly label: string;
  /** "06:30"; "24:00" is the end of the day. */
  readonly value: string;
  readonly onChange: (value: string) => void;
}

const CLOCK = /^([01]\d|2[0-3]):[0-5]\d$/;

/** A time of day, chosen with what the device offers for it; what is not one yet is not told. */
export function ClockField({ label, value, onChange }: ClockFieldProps) {
  const palette = usePalette();
  const id = useId();
  return (
    <View style={styles.field}>
      <label htmlFor={id}>
        <Words as="second" colour={palette.ink2}>
          {label}
        </Words>
      </label>
      <input
        id={id}
        type="time"
        value={value === '24:00' ? '00:00' : value.padStart(5, '0')}
        onChange={(event) => {
          if (CLOCK.test(event.currentTarget.value)) onChange(event.currentTarget.value);
        }}
        style={{
          fontFamily: TYPE.body.fontFamily,
          fontSize: TYPE.body.fontSize,
          color: palette.ink,
          backgroundColor: palette.sheet,
          border: `1px solid ${palette.line2}`,
          borderRadius: 10,
          minHeight: 44,
          padding: '0 12px',
          boxSizing: 'border-box',
        }}
      />
    </View>
  );
}

const styles = StyleSheet.create({ field: { gap: 4, minWidth: 110 } });
