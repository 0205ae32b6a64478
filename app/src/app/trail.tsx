import { RoleGate } from '../screens/RoleGate';
import { TrailScreen } from '../screens/trail/TrailScreen';

export default function Trail() {
  return (
    <RoleGate least="administrator" everywhere to="read the trail">
      <TrailScreen />
    </RoleGate>
  );
}
