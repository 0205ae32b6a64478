import { useLocalSearchParams } from 'expo-router';
import { lazyScreen } from '../../../screens/lazyScreen';

const AssetScreen = lazyScreen(async () => (await import('../../../screens/data/assetScreens')).AssetScreen);

export default function AssetRoute() {
  const { assetId } = useLocalSearchParams<{ assetId: string }>();
  return <AssetScreen assetId={assetId} />;
}
