import { useLocalSearchParams } from 'expo-router';
import { lazyScreen } from '../../../screens/lazyScreen';

const DerivedEditorScreen = lazyScreen(
  async () => (await import('../../../screens/data/DerivedEditorScreen')).DerivedEditorScreen,
);

export default function DerivedRoute() {
  const { metricId } = useLocalSearchParams<{ metricId: string }>();
  return <DerivedEditorScreen metricId={metricId} assetId={null} />;
}
