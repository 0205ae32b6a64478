import { useLocalSearchParams } from 'expo-router';
import { lazyScreen } from '../../../screens/lazyScreen';
import { RoleGate } from '../../../screens/RoleGate';

const IndicatorEditorScreen = lazyScreen(
  async () => (await import('../../../screens/indicators/IndicatorEditorScreen')).IndicatorEditorScreen,
);

export default function EditIndicator() {
  const { indicatorId } = useLocalSearchParams<{ indicatorId: string }>();
  return (
    <RoleGate least="analyst" to="define indicators">
      <IndicatorEditorScreen key={indicatorId} indicatorId={indicatorId} />
    </RoleGate>
  );
}
