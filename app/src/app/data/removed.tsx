import { RemovedScreen } from '../../screens/data/RemovedScreen';
import { RoleGate } from '../../screens/RoleGate';

export default function RemovedRoute() {
  return (
    <RoleGate least="analyst" to="restore what was removed">
      <RemovedScreen />
    </RoleGate>
  );
}
