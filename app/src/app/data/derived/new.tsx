import { useLocalSearchParams } from 'expo-router';
import { lazyScreen } from '../../../screens/lazyScreen';

const DerivedEditorScreen = lazyScreen(
  async () => (await import('../../../screens/data/DerivedEditorScreen')).DerivedEditorScreen,
);

export default function NewDerivedRoute() {
  const { assetId } = useLocalSearchParams<{ assetId?: string }>();
  return <DerivedEditorScreen metricId={null} assetId={assetId ?? null} />;
}
