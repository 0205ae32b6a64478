import { CalendarsScreen } from '../../screens/data/CalendarsScreen';

export default function CalendarsRoute() {
  return <CalendarsScreen />;
}
