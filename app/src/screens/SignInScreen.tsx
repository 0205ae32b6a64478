import { useState } from 'react';
import { yupResolver } from '@hookform/resolvers/yup';
import { Controller, useForm } from 'react-hook-form';
import { ScrollView, StyleSheet, View } from 'react-native';
import { signInSchema, type DemoAccount, type SessionState, type SignInProblem } from '@vivid-beacon/core';
import { ApiError } from '../api/client';
import { providerAddress, useSignIn } from '../api/session';
import { Harbour } from '../charts/Harbour';
import { Button } from '../components/Button';
import { Field } from '../components/Field';
import { OnIcon } from '../components/icons';
import { Row } from '../components/Row';
import { Section } from '../components/Section';
import { Words } from '../components/Words';
import { useWidth } from '../hooks/useWidth';
import { usePalette } from '../theme/useTheme';

/** Signs in; in demo mode it offers the demo accounts, one per duty. */
export function SignInScreen({ state }: { readonly state: SessionState }) {
  const palette = usePalette();
  const signIn = useSignIn();
  const [width, onLayout] = useWidth();
  const { control, handleSubmit } = useForm({
    resolver: yupResolver(signInSchema),
    defaultValues: { email: '', password: '', code: null },
  });
  const [asksForCode, setAsksForCode] = useState(false);
  const submit = handleSubmit((form) =>
    signIn.mutate(form, {
      onError: (error) => {
        if (error instanceof ApiError && error.code === 'CODE_NEEDED') setAsksForCode(true);
      },
    }),
  );
  return (
    <ScrollView contentContainerStyle={styles.scroll}>
      <View role="main" style={[styles.sheet, { backgroundColor: palette.sheet, borderColor: palette.ink }]}>
        <View onLayout={onLayout}>
          <Harbour width={width} />
        </View>
        <View style={styles.content}>
          <Words as="pageTitle" heading={1}>
            Vivid Beacon
          </Words>
          <Words as="body" colour={palette.ink2}>
            What your plants need a person for, now.
          </Words>
          <View style={styles.form}>
            <Controller
              control={control}
              name="email"
              render={({ field, fieldState }) => (
                <Field
                  label="E-mail address"
                  autoComplete="username"
                  inputMode="email"
                  value={field.value}
                  onChange={field.onChange}
                  onBlur={field.onBlur}
                  error={fieldState.error?.message}
                  onSubmitEditing={() => void submit()}
                />
              )}
            />
            <Controller
              control={control}
              name="password"
              render={({ field, fieldState }) => (
                <Field
                  label="Password"
                  secureTextEntry
                  autoComplete="current-password"
                  value={field.value}
                  onChange={field.onChange}
                  onBlur={field.onBlur}
                  error={fieldState.error?.message}
                  onSubmitEditing={() => void submit()}
                />
              )}
            />
            {asksForCode && (
              <Controller
                control={control}
                name="code"
                render={({ field, fieldState }) => (
                  <Field
                    label="Code of your authenticator app, or a recovery code"
                    autoComplete="one-time-code"
                    value={field.value ?? ''}
                    onChange={(text) => field.onChange(text === '' ? null : text)}
                    onBlur={field.onBlur}
                    error={fieldState.error?.message}
                    onSubmitEditing={() => void submit()}
                  />
                )}
              />
            )}
            {signIn.isError && (
              <View role="alert">
                <Words as="body" colour={palette.breachT}>
                  {signIn.error.message}
                </Words>
              </View>
            )}
            <Button
              variant="primary"
              label={signIn.isPending ? 'Signing in' : 'Sign in'}
              disabled={signIn.isPending}
              onPress={() => void submit()}
            />
          </View>
          {state.provider !== null && <WithProvider name={state.provider} />}
          {state.demoAccounts.length > 0 && (
            <Section title="Look around as" aside="demo, Hollowmere Linen" closed={false}>
              {state.demoAccounts.map((account, i) => (
                <DemoRow
                  key={account.email}
                  account={account}
                  last={i === state.demoAccounts.length - 1}
                  onPress={() =>
                    signIn.mutate({ email: account.email, password: account.password, code: null })
                  }
                />
              ))}
            </Section>
          )}
        </View>
      </View>
    </ScrollView>
  );
}

const PROBLEMS: Readonly<Record<SignInProblem, (name: string) => string>> = {
  provider: (name) =>
    `${name} gave no answer that fits. Try again in a while, or sign in with your password.`,
  refused: (name) => `${name} did not let you sign in.`,
  expired: (name) => `This took longer than ten minutes, or began in another browser. Go to ${name} again.`,
  unknown: (name) =>
    `No account here has the address that ${name} knows you by, or it is not verified there. An administrator can invite you.`,
  taken: (name) =>
    `The account here with your address belongs to another account of ${name}. An administrator can change that.`,
  secondFactor: (name) =>
    `Your account takes a second factor, and ${name} did not ask for one. Sign in with your password and a code.`,
};

/** Signs in with the provider that the operator has set, and says why that failed. */
function WithProvider({ name }: { readonly name: string }) {
  const palette = usePalette();
  const { pathname, search } = window.location;
  const params = new URLSearchParams(search);
  const problem = params.get('signIn');
  params.delete('signIn');
  const rest = params.toString();
  return (
    <View style={styles.provider}>
      <Button
        label={`Sign in with ${name}`}
        onPress={() =>
          window.location.assign(providerAddress(rest === '' ? pathname : `${pathname}?${rest}`))
        }
      />
      {problem !== null && Object.hasOwn(PROBLEMS, problem) && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>
            {PROBLEMS[problem as SignInProblem](name)}
          </Words>
        </View>
      )}
    </View>
  );
}

function DemoRow({
  account,
  onPress,
  last,
}: {
  readonly account: DemoAccount;
  readonly onPress: () => void;
  readonly last: boolean;
}) {
  const palette = usePalette();
  return (
    <Row
      title={account.duty}
      second={`${account.name}, role ${account.role}${account.plants.length > 0 ? ` at ${account.plants.join(' and ')}` : ''}`}
      name={`Sign in as ${account.duty}, ${account.name}`}
      onPress={onPress}
      last={last}
      left={<OnIcon size={18} color={palette.sea} strokeWidth={1.75} />}
      right={<View />}
    />
  );
}

const styles = StyleSheet.create({
  provider: { gap: 8, paddingTop: 12 },
  scroll: { flexGrow: 1, alignItems: 'center', justifyContent: 'center' },
  sheet: { width: '100%', maxWidth: 480, flexGrow: 1, maxHeight: 900, borderWidth: 1.5 },
  content: { padding: 24, gap: 6 },
  form: { gap: 12, paddingTop: 14, paddingBottom: 6 },
});
