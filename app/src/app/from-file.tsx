import { lazyScreen } from '../screens/lazyScreen';
import { RoleGate } from '../screens/RoleGate';

const DefinitionsInScreen = lazyScreen(
  async () => (await import('../screens/definitions/DefinitionsInScreen')).DefinitionsInScreen,
);

export default function FromFile() {
  return (
    <RoleGate least="analyst" to="bring rules and indicators in">
      <DefinitionsInScreen />
    </RoleGate>
  );
}
