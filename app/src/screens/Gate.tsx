import { useEffect } from 'react';
import { StyleSheet, View } from 'react-native';
import { useSession } from '../api/session';
import { useKeptAnswers } from '../api/useKeptAnswers';
import { useLive } from '../api/useLive';
import { Answer } from '../components/Answer';
import { Shell } from '../components/Shell';
import { usePalette } from '../theme/useTheme';
import { SignInScreen } from './SignInScreen';

/** Shows the pages to whoever is signed in, and the sign-in screen to everybody else. */
export function Gate() {
  const palette = usePalette();
  const session = useSession();
  const signedIn = Boolean(session.data?.person);
  useLive(signedIn);
  const ready = useKeptAnswers(session.data?.person?.id ?? null);
  useEffect(() => {
    document.documentElement.style.setProperty('--ring', palette.sea);
    document.body.style.backgroundColor = palette.ground;
  }, [palette]);
  if (signedIn && ready) return <Shell />;
  return (
    <View style={[styles.page, { backgroundColor: palette.ground }]}>
      <Answer query={session} reading="Opening Vivid Beacon">
        {(state) => (state.person ? null : <SignInScreen state={state} />)}
      </Answer>
    </View>
  );
}

const styles = StyleSheet.create({ page: { flex: 1 } });
