import { LossesScreen } from '../screens/LossesScreen';

export default function Losses() {
  return <LossesScreen />;
}
