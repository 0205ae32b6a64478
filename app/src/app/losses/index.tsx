import { LossesScreen } from '../../screens/losses/LossesScreen';

export default function Losses() {
  return <LossesScreen />;
}
