import { lazyScreen } from '../../screens/lazyScreen';

const IntakeScreen = lazyScreen(async () => (await import('../../screens/data/fileScreens')).IntakeScreen);

export default function IntakeRoute() {
  return <IntakeScreen />;
}
