import { useState } from 'react';
import { useRouter } from 'expo-router';
import { ScrollView, StyleSheet, View } from 'react-native';
import { newPasswordSchema } from '@vivid-beacon/core/src/schemas/people';
import { useSession } from '../../api/session';
import { useChoosePassword, useInvitation } from '../../api/people';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { QueryResult } from '../../components/QueryResult';
import { Refusal } from '../../components/Refusal';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { passwordProblem } from './passwordProblem';

/** The page that an invitation leads to: it chooses a password. The secret stands behind #, which no server sees. */
export function WelcomeScreen() {
  const palette = usePalette();
  // Its form token goes with what is sent.
  const session = useSession();
  const [token] = useState(() => window.location.hash.slice(1));
  return (
    <ScrollView style={{ backgroundColor: palette.ground }} contentContainerStyle={styles.scroll}>
      <View role="main" style={[styles.sheet, { backgroundColor: palette.sheet, borderColor: palette.ink }]}>
        <Words as="pageTitle" heading={1}>
          Welcome to Vivid Beacon
        </Words>
        <QueryResult query={session} reading="Opening Vivid Beacon">
          {() => <Invitation token={token} />}
        </QueryResult>
      </View>
    </ScrollView>
  );
}

/** Read once there is a form token. */
function Invitation({ token }: { readonly token: string }) {
  const invitation = useInvitation(token);
  return (
    <QueryResult query={invitation} reading="Opening the invitation">
      {({ name, email }) => <ChoosePassword token={token} name={name} email={email} />}
    </QueryResult>
  );
}

function ChoosePassword({
  token,
  name,
  email,
}: {
  readonly token: string;
  readonly name: string;
  readonly email: string;
}) {
  const router = useRouter();
  const palette = usePalette();
  const choose = useChoosePassword(token);
  const [password, setPassword] = useState('');
  const [tried, setTried] = useState(false);
  const problem = passwordProblem(newPasswordSchema, password);
  const submit = (): void => {
    setTried(true);
    if (problem) return;
    void choose.mutateAsync(password).then(
      () => router.replace('/'),
      () => undefined,
    );
  };
  return (
    <View style={styles.form}>
      <Words as="body">{`${name}, choose a password for ${email}.`}</Words>
      <Words as="second" colour={palette.ink2}>
        At least 15 characters; a few words that do not belong together are easy to keep in mind.
      </Words>
      <Field
        label="Password"
        secureTextEntry
        autoComplete="new-password"
        value={password}
        onChange={setPassword}
        error={tried ? problem : undefined}
        onSubmitEditing={submit}
      />
      <Refusal of={choose} />
      <Button
        variant="primary"
        label={choose.isPending ? 'Setting the password' : 'Set the password and sign in'}
        disabled={choose.isPending}
        onPress={submit}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  scroll: { flexGrow: 1, alignItems: 'center', justifyContent: 'center' },
  sheet: { width: '100%', maxWidth: 480, borderWidth: 1.5, padding: 24, gap: 10 },
  form: { gap: 12 },
});
