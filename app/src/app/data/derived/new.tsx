import { useLocalSearchParams } from 'expo-router';
import { DerivedEditorScreen } from '../../../screens/data/DerivedEditorScreen';

export default function NewDerivedRoute() {
  const { assetId } = useLocalSearchParams<{ assetId?: string }>();
  return <DerivedEditorScreen metricId={null} assetId={assetId ?? null} />;
}
