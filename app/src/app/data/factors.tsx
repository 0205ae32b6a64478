import { FactorsScreen } from '../../screens/data/FactorsScreen';

export default function FactorsRoute() {
  return <FactorsScreen />;
}
