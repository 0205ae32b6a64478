import { useLocalSearchParams } from 'expo-router';
import { lazyScreen } from '../../../screens/lazyScreen';

const IndicatorEditorScreen = lazyScreen(
  async () => (await import('../../../screens/indicators/IndicatorEditorScreen')).IndicatorEditorScreen,
);

export default function EditIndicator() {
  const { indicatorId } = useLocalSearchParams<{ indicatorId: string }>();
  return <IndicatorEditorScreen key={indicatorId} indicatorId={indicatorId} />;
}
