import { ListPage } from '../../components/ListWithDetail';
import { AlarmsScreen } from '../../screens/AlarmsScreen';

export default function Alarms() {
  return <ListPage list={<AlarmsScreen />} hint="Choose an alarm to see it here." />;
}
