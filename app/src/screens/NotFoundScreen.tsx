import { usePathname, useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Button } from '../components/Button';
import { Page } from '../components/Page';
import { Words } from '../components/Words';

/** Unknown address: says so, with a way back. */
export function NotFoundScreen() {
  const router = useRouter();
  const path = usePathname();
  return (
    <Page title="Page not found">
      <View style={styles.body}>
        <Words as="body">{`There is nothing at ${path}. The link may be incomplete, or the page was removed.`}</Words>
        <View style={styles.buttons}>
          <Button label="Go to On watch" variant="primary" onPress={() => router.replace('/')} />
          <Button label="Go to boards" onPress={() => router.replace('/boards')} />
          {router.canGoBack() && <Button label="Back" variant="quiet" onPress={() => router.back()} />}
        </View>
      </View>
    </Page>
  );
}

const styles = StyleSheet.create({
  body: { gap: 14, paddingVertical: 8, maxWidth: 640 },
  buttons: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
});
