import { View } from 'react-native';
import type { AccountForm } from '../../api/people';
import { Field } from '../../components/Field';
import { RightsField } from './RightsField';

interface AccountFieldsProps {
  readonly form: AccountForm;
  readonly onChange: (form: AccountForm) => void;
}

/** Name, address and rights of a person. */
export function AccountFields({ form, onChange }: AccountFieldsProps) {
  return (
    <View style={{ gap: 12 }}>
      <Field
        label="Name"
        autoComplete="off"
        value={form.name}
        onChange={(name) => onChange({ ...form, name })}
      />
      <Field
        label="E-mail address"
        autoComplete="off"
        inputMode="email"
        value={form.email}
        onChange={(email) => onChange({ ...form, email })}
      />
      <RightsField rights={form.rights} onChange={(rights) => onChange({ ...form, rights })} />
    </View>
  );
}
