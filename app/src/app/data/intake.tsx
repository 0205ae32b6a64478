import { lazyScreen } from '../../screens/lazyScreen';
import { RoleGate } from '../../screens/RoleGate';

const IntakeScreen = lazyScreen(async () => (await import('../../screens/data/fileScreens')).IntakeScreen);

export default function IntakeRoute() {
  return (
    <RoleGate least="analyst" to="take in files">
      <IntakeScreen />
    </RoleGate>
  );
}
