import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { useLayout } from '../../hooks/useLayout';
import { WordRow } from '../../components/WordRow';

const PLACES = [
  { value: '/data', label: 'Assets' },
  { value: '/data/feeds', label: 'Feeds' },
  { value: '/data/files', label: 'Files' },
  { value: '/data/logs', label: 'Logs' },
  { value: '/data/calendars', label: 'Calendars' },
  { value: '/data/factors', label: 'Factors' },
] as const;

export type DataPlace = (typeof PLACES)[number]['value'];

/** The places under Data, of which one is open. */
export function DataPlaces({ open }: { readonly open: DataPlace }) {
  const router = useRouter();
  const { wide } = useLayout();
  return (
    <View style={{ paddingHorizontal: wide ? 24 : 20 }}>
      <WordRow
        name="Places under Data"
        options={PLACES}
        chosen={open}
        onChoose={(place) => router.navigate(place)}
      />
      <View style={styles.under} />
    </View>
  );
}

const styles = StyleSheet.create({ under: { height: 4 } });
