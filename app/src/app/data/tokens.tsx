import { TokensScreen } from '../../screens/tokens/TokensScreen';

export default function Tokens() {
  return <TokensScreen />;
}
