import { useId } from 'react';
import { StyleSheet, TextInput, View, type TextInputProps } from 'react-native';
import { TYPE } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

interface FieldProps extends Pick<
  TextInputProps,
  'secureTextEntry' | 'multiline' | 'autoComplete' | 'inputMode' | 'onSubmitEditing' | 'placeholder'
> {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly onBlur?: () => void;
  readonly error?: string;
  /** Stands after the value, such as a unit. */
  readonly after?: string;
  readonly hideLabel?: boolean;
}

/** A text field with its label above and what is wrong below. */
export function Field({
  label,
  value,
  onChange,
  onBlur,
  error,
  after,
  hideLabel = false,
  multiline,
  ...rest
}: FieldProps) {
  const palette = usePalette();
  const id = useId();
  return (
    <View style={styles.field}>
      {!hideLabel && (
        <label htmlFor={id}>
          <Words as="second" colour={palette.ink2}>
            {label}
          </Words>
        </label>
      )}
      <View
        style={[
          styles.box,
          { borderColor: error ? palette.breach : palette.line2, backgroundColor: palette.sheet },
        ]}
      >
        <TextInput
          {...rest}
          id={id}
          aria-label={label}
          aria-invalid={error !== undefined}
          aria-describedby={error ? `${id}-error` : undefined}
          value={value}
          onChangeText={onChange}
          onBlur={onBlur}
          multiline={multiline}
          numberOfLines={multiline ? 3 : undefined}
          placeholderTextColor={palette.ink3}
          style={[TYPE.body, styles.input, { color: palette.ink }, multiline && styles.tall]}
        />
        {Boolean(after) && (
          <Words as="body" colour={palette.ink2}>
            {after}
          </Words>
        )}
      </View>
      {error && (
        <View id={`${id}-error`} role="alert">
          <Words as="second" colour={palette.breachT}>
            {error}
          </Words>
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  field: { gap: 4, flexGrow: 1, flexShrink: 1, minWidth: 0 },
  box: {
    borderWidth: 1,
    borderRadius: 10,
    flexDirection: 'row',
    alignItems: 'center',
    paddingHorizontal: 12,
    gap: 6,
  },
  input: { flex: 1, minHeight: 44, paddingVertical: 10, minWidth: 0 },
  tall: { minHeight: 76 },
});
