import { lazyScreen } from '../../screens/lazyScreen';

const AssetsScreen = lazyScreen(async () => (await import('../../screens/data/assetScreens')).AssetsScreen);

export default function AssetsRoute() {
  return <AssetsScreen />;
}
