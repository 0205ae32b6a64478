import { usePathname, useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Button } from '../components/Button';
import { Page } from '../components/Page';
import { Words } from '../components/Words';

/** An address that leads nowhere: says so, and the way back. */
export function NotFoundScreen() {
  const router = useRouter();
  const path = usePathname();
  return (
    <Page title="There is no such page">
      <View style={styles.body}>
        <Words as="body">{`Nothing is at ${path}. The link may be cut off, or what it showed was removed.`}</Words>
        <View style={styles.buttons}>
          <Button label="To On watch" look="main" onPress={() => router.replace('/')} />
          <Button label="To the boards" onPress={() => router.replace('/boards')} />
          {router.canGoBack() && <Button label="Back" look="quiet" onPress={() => router.back()} />}
        </View>
      </View>
    </Page>
  );
}

const styles = StyleSheet.create({
  body: { gap: 14, paddingVertical: 8, maxWidth: 640 },
  buttons: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
});
