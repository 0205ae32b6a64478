import { StyleSheet, View } from 'react-native';
import { NumberField } from '../../../components/NumberField';
import type { FieldsProps } from './fields';

export function OutsideFields({ test, unit, onChange }: FieldsProps<'outside'>) {
  return (
    <View style={styles.pair}>
      <NumberField label="From" unit={unit} value={test.low} onChange={(low) => onChange({ ...test, low })} />
      <NumberField
        label="To"
        unit={unit}
        value={test.high}
        error={test.high > test.low ? undefined : 'This must be greater than its start'}
        onChange={(high) => onChange({ ...test, high })}
      />
    </View>
  );
}

const styles = StyleSheet.create({ pair: { flexDirection: 'row', gap: 12 } });
