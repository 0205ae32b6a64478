import { useState } from 'react';
import { View } from 'react-native';
import { newPasswordSchema } from '@vivid-beacon/core/src/schemas/people';
import { useChangePassword } from '../../api/people';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Refusal } from '../../components/Refusal';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { passwordProblem } from './passwordProblem';

/** Changes the own password; the present one is asked for. */
export function PasswordForm() {
  const palette = usePalette();
  const change = useChangePassword();
  const [old, setOld] = useState('');
  const [next, setNext] = useState('');
  const [tried, setTried] = useState(false);
  const problem = passwordProblem(newPasswordSchema, next);
  const submit = (): void => {
    setTried(true);
    if (problem || old === '') return;
    change.mutate(
      { old, new: next },
      {
        onSuccess: () => {
          setOld('');
          setNext('');
          setTried(false);
        },
      },
    );
  };
  return (
    <View style={{ gap: 12, paddingVertical: 8 }}>
      <Field
        label="Present password"
        secureTextEntry
        autoComplete="current-password"
        value={old}
        onChange={setOld}
        error={tried && old === '' ? 'Give your present password' : undefined}
      />
      <Field
        label="New password"
        secureTextEntry
        autoComplete="new-password"
        value={next}
        onChange={setNext}
        error={tried ? problem : undefined}
      />
      <Refusal of={change} />
      {change.isSuccess && (
        <View role="status">
          <Words as="body" colour={palette.ink2}>
            Changed. Your other devices have been signed out.
          </Words>
        </View>
      )}
      <View style={{ alignItems: 'flex-start' }}>
        <Button
          label={change.isPending ? 'Changing' : 'Change the password'}
          disabled={change.isPending}
          onPress={submit}
        />
      </View>
    </View>
  );
}
