import { RemovedScreen } from '../../screens/data/RemovedScreen';

export default function RemovedRoute() {
  return <RemovedScreen />;
}
