import { useLocalSearchParams } from 'expo-router';
import { AssetScreen } from '../../../screens/data/AssetScreen';

export default function AssetRoute() {
  const { assetId } = useLocalSearchParams<{ assetId: string }>();
  return <AssetScreen assetId={assetId} />;
}
