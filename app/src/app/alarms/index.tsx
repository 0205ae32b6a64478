import { AlarmsScreen } from '../../screens/AlarmsScreen';

export default function Alarms() {
  return <AlarmsScreen />;
}
