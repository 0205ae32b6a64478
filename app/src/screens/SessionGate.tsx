import { useEffect } from 'react';
import { usePathname } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { useSession } from '../api/session';
import { useQueryPersistence } from '../api/useQueryPersistence';
import { useLive } from '../api/useLive';
import { QueryResult } from '../components/QueryResult';
import { Shell } from '../components/Shell';
import { usePalette } from '../theme/useTheme';
import { SecondFactorGate } from './account/SecondFactorGate';
import { WelcomeScreen } from './account/WelcomeScreen';
import { SignInScreen } from './SignInScreen';

/** Shows the pages to whoever is signed in, and the sign-in screen to everybody else. */
export function SessionGate() {
  const palette = usePalette();
  const path = usePathname();
  const session = useSession();
  const signedIn = Boolean(session.data?.person);
  useLive(signedIn && !session.data?.secondFactorDue);
  const ready = useQueryPersistence(session.data?.person?.id ?? null);
  useEffect(() => {
    document.documentElement.style.setProperty('--ring', palette.sea);
    document.body.style.backgroundColor = palette.ground;
  }, [palette]);
  // Before the sign-in screen, and before the pages of whoever is signed in here.
  if (path === '/welcome') return <WelcomeScreen />;
  if (session.data?.secondFactorDue) return <SecondFactorGate />;
  if (signedIn && ready) return <Shell />;
  return (
    <View style={[styles.page, { backgroundColor: palette.ground }]}>
      <QueryResult query={session} reading="Opening Vivid Beacon">
        {(state) => (state.person ? null : <SignInScreen state={state} />)}
      </QueryResult>
    </View>
  );
}

const styles = StyleSheet.create({ page: { flex: 1 } });
