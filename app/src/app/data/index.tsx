import { DataScreen } from '../../screens/DataScreen';

export default function Data() {
  return <DataScreen />;
}
