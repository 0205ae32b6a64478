import { ListWithDetail } from '../../components/ListWithDetail';
import { AlarmsScreen } from '../../screens/AlarmsScreen';

export default function AlarmsLayout() {
  return <ListWithDetail base="/alarms" detail={/^\/alarms\/\d+$/} list={<AlarmsScreen />} />;
}
