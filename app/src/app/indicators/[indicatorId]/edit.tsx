import { useLocalSearchParams } from 'expo-router';
import { IndicatorEditorScreen } from '../../../screens/indicators/IndicatorEditorScreen';

export default function EditIndicator() {
  const { indicatorId } = useLocalSearchParams<{ indicatorId: string }>();
  return <IndicatorEditorScreen key={indicatorId} indicatorId={indicatorId} />;
}
