import { useLocalSearchParams } from 'expo-router';
import { MetricScreen } from '../../../screens/data/MetricScreen';

export default function MetricRoute() {
  const { metricId } = useLocalSearchParams<{ metricId: string }>();
  return <MetricScreen key={metricId} metricId={metricId} />;
}
