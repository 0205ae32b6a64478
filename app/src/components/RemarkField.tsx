import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from './Button';
import { Field } from './Field';

interface RemarkFieldProps {
  readonly label: string;
  readonly pending: boolean;
  readonly error: Error | null;
  /** `clear` empties the field once it is written. */
  readonly onAdd: (remark: string, clear: () => void) => void;
}

/** One line to write and a button that adds it to the history above. */
export function RemarkField({ label, pending, error, onAdd }: RemarkFieldProps) {
  const [remark, setRemark] = useState('');
  return (
    <View style={styles.row}>
      <Field
        label={label}
        hideLabel
        placeholder={label}
        value={remark}
        onChange={setRemark}
        error={error?.message}
      />
      <Button
        label="Add"
        name={label.replace(/^Add a /, 'Add the ')}
        disabled={remark.trim() === '' || pending}
        onPress={() => onAdd(remark, () => setRemark(''))}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 8, paddingVertical: 10, alignItems: 'flex-start' },
});
