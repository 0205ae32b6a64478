import { LengthField } from '../../../components/LengthField';
import type { FieldsProps } from './fields';

export function SilenceFields({ test, onChange }: FieldsProps<'silence'>) {
  return (
    <LengthField
      label="No sample for"
      value={test.forMs}
      onChange={(forMs) => onChange({ ...test, forMs })}
    />
  );
}
