import { IntakeScreen } from '../../screens/IntakeScreen';

export default function Intake() {
  return <IntakeScreen />;
}
