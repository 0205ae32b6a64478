import { OnWatchScreen } from '../screens/OnWatchScreen';

export default function Index() {
  return <OnWatchScreen />;
}
