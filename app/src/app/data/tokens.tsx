import { TokensScreen } from '../../screens/tokens/TokensScreen';
import { RoleGate } from '../../screens/RoleGate';

export default function Tokens() {
  return (
    <RoleGate least="analyst" to="manage push tokens">
      <TokensScreen />
    </RoleGate>
  );
}
