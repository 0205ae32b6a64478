import { FeedsScreen } from '../../screens/data/FeedsScreen';

export default function FeedsRoute() {
  return <FeedsScreen />;
}
