import { LogsScreen } from '../../screens/data/LogsScreen';

export default function LogsRoute() {
  return <LogsScreen />;
}
