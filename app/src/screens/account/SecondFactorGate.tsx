import { useQueryClient } from '@tanstack/react-query';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useOwnAccount } from '../../api/people';
import { useSignOut } from '../../api/session';
import { Button } from '../../components/Button';
import { QueryResult } from '../../components/QueryResult';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { SecondFactorSection } from './SecondFactorSection';

/** Stands before everything else until a second factor that is required has been set up. */
export function SecondFactorGate() {
  const palette = usePalette();
  const client = useQueryClient();
  const query = useOwnAccount();
  const signOut = useSignOut();
  return (
    <ScrollView style={{ backgroundColor: palette.ground }} contentContainerStyle={styles.scroll}>
      <View role="main" style={[styles.sheet, { backgroundColor: palette.sheet, borderColor: palette.ink }]}>
        <Words as="pageTitle" heading={1}>
          One more step
        </Words>
        <Words as="body">
          An administrator requires a second factor of your account. Set it up to go on.
        </Words>
        <QueryResult query={query} reading="Loading your account">
          {({ secondFactor, recoveryLeft }) => (
            <SecondFactorSection
              secondFactor={secondFactor}
              recoveryLeft={recoveryLeft}
              onDone={() => void client.invalidateQueries({ queryKey: ['session'] })}
            />
          )}
        </QueryResult>
        <View style={styles.start}>
          <Button label="Sign out" disabled={signOut.isPending} onPress={() => signOut.mutate()} />
        </View>
      </View>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  scroll: { flexGrow: 1, alignItems: 'center', justifyContent: 'center' },
  sheet: { width: '100%', maxWidth: 480, borderWidth: 1.5, padding: 24, gap: 10 },
  start: { alignItems: 'flex-start' },
});
