import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import QRCode from 'react-native-qrcode-svg';
import type { OwnAccount } from '@vivid-beacon/core';
import { useBeginSecondFactor, useConfirmSecondFactor, useRemoveSecondFactor } from '../../api/people';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Refusal } from '../../components/Refusal';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface SecondFactorSectionProps extends Pick<OwnAccount, 'secondFactor' | 'recoveryLeft'> {
  /** The codes were written down. */
  readonly onDone?: () => void;
}

/** Sets up a second factor, sets it up anew, or removes it; the present password is asked for. */
export function SecondFactorSection({ secondFactor, recoveryLeft, onDone }: SecondFactorSectionProps) {
  const palette = usePalette();
  const begin = useBeginSecondFactor();
  const confirm = useConfirmSecondFactor();
  const remove = useRemoveSecondFactor();
  const [password, setPassword] = useState('');
  const [code, setCode] = useState('');
  const done = (): void => {
    begin.reset();
    confirm.reset();
    setPassword('');
    setCode('');
    onDone?.();
  };
  const state = secondFactor.on
    ? `On. ${recoveryLeft} ${recoveryLeft === 1 ? 'recovery code is' : 'recovery codes are'} left.`
    : secondFactor.required
      ? 'Needed: your account has to have one.'
      : 'Off. With it, signing in also takes a code of an authenticator app on your phone.';
  return (
    <Section title="Second factor">
      <Words as="body" colour={palette.ink2}>
        {state}
      </Words>
      {confirm.data ? (
        <RecoveryCodes codes={confirm.data.recoveryCodes} onDone={done} />
      ) : begin.data ? (
        <View style={styles.form}>
          <Words as="body">
            Read this with your authenticator app, or type the secret into it; then give its code.
          </Words>
          {/* Dark on light in every theme: cameras expect it. */}
          <View style={styles.picture} role="img" aria-label="QR code of the secret">
            <QRCode value={begin.data.uri} size={176} />
          </View>
          <Words as="bodyStrong">{begin.data.secret.replace(/(.{4})(?=.)/g, '$1 ')}</Words>
          <Field
            label="Code of six digits"
            inputMode="numeric"
            autoComplete="one-time-code"
            value={code}
            onChange={setCode}
          />
          <Refusal of={confirm} />
          <View style={styles.tools}>
            <Button
              variant="primary"
              label="Confirm"
              disabled={code.trim() === '' || confirm.isPending}
              onPress={() => confirm.mutate(code)}
            />
            <Button label="Cancel" onPress={done} />
          </View>
        </View>
      ) : (
        <View style={styles.form}>
          <Field
            label="Present password, for the second factor"
            secureTextEntry
            autoComplete="current-password"
            value={password}
            onChange={setPassword}
          />
          <Refusal of={begin} />
          <Refusal of={remove} />
          <View style={styles.tools}>
            <Button
              label={secondFactor.on ? 'Set it up anew' : 'Set up a second factor'}
              disabled={password === '' || begin.isPending}
              onPress={() => begin.mutate(password)}
            />
            {secondFactor.on && !secondFactor.required && (
              <Button
                label="Remove it"
                name="Remove the second factor"
                disabled={password === '' || remove.isPending}
                onPress={() => remove.mutate(password, { onSuccess: () => setPassword('') })}
              />
            )}
          </View>
        </View>
      )}
    </Section>
  );
}

/** Codes for when the device is lost, shown once. */
function RecoveryCodes({
  codes,
  onDone,
}: {
  readonly codes: readonly string[];
  readonly onDone: () => void;
}) {
  const palette = usePalette();
  return (
    <View role="status" style={[styles.box, { borderColor: palette.sea, backgroundColor: palette.water }]}>
      <Words as="bodyStrong">Write these recovery codes down; they are not shown again.</Words>
      <Words as="body">Each signs you in once when your device is lost.</Words>
      {codes.map((each) => (
        <Words key={each} as="body">
          {each}
        </Words>
      ))}
      <View style={styles.tools}>
        <Button label="I have written them down" onPress={onDone} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  form: { gap: 10, paddingVertical: 8 },
  picture: { backgroundColor: '#ffffff', padding: 12, alignSelf: 'flex-start' },
  tools: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingTop: 4 },
  box: { borderWidth: 1.5, borderRadius: 10, padding: 12, gap: 4, marginVertical: 8 },
});
