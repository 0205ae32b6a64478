import { RemovedMetricsScreen } from '../../screens/data/RemovedMetricsScreen';

export default function RemovedMetricsRoute() {
  return <RemovedMetricsScreen />;
}
