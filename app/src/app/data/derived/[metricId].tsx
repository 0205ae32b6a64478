import { useLocalSearchParams } from 'expo-router';
import { lazyScreen } from '../../../screens/lazyScreen';
import { RoleGate } from '../../../screens/RoleGate';

const DerivedEditorScreen = lazyScreen(
  async () => (await import('../../../screens/data/DerivedEditorScreen')).DerivedEditorScreen,
);

export default function DerivedRoute() {
  const { metricId } = useLocalSearchParams<{ metricId: string }>();
  return (
    <RoleGate least="analyst" to="write derived metrics">
      <DerivedEditorScreen metricId={metricId} assetId={null} />
    </RoleGate>
  );
}
