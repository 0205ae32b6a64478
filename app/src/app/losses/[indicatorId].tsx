import { useLocalSearchParams } from 'expo-router';
import { IndicatorScreen } from '../../screens/indicators/IndicatorScreen';

export default function LossRoute() {
  const { indicatorId } = useLocalSearchParams<{ indicatorId: string }>();
  return <IndicatorScreen key={indicatorId} indicatorId={indicatorId} from="/losses" />;
}
