import { TokensScreen } from '../../screens/TokensScreen';

export default function Tokens() {
  return <TokensScreen />;
}
