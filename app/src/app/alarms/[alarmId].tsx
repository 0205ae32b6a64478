import { useLocalSearchParams } from 'expo-router';
import { AlarmScreen } from '../../screens/AlarmScreen';

export default function AlarmRoute() {
  const { alarmId } = useLocalSearchParams<{ alarmId: string }>();
  return <AlarmScreen key={alarmId} alarmId={alarmId} />;
}
