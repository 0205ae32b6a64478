import { useLocalSearchParams } from 'expo-router';
import { DerivedEditorScreen } from '../../../screens/data/DerivedEditorScreen';

export default function DerivedRoute() {
  const { metricId } = useLocalSearchParams<{ metricId: string }>();
  return <DerivedEditorScreen metricId={metricId} assetId={null} />;
}
