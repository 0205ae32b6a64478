import { useRouter } from 'expo-router';
import { useAssetsById } from '../../api/catalogue';
import { Page } from '../../components/Page';
import { AssetDetail } from './AssetDetail';

/** One asset as a page of its own, for the phone and for links. */
export function AssetScreen({ assetId }: { readonly assetId: string }) {
  const router = useRouter();
  const asset = useAssetsById([assetId]).byId.get(assetId);
  return (
    <Page
      title={asset?.name ?? 'Asset'}
      under={asset?.title.split(' / ').slice(0, -1).join(' / ')}
      onBack={() => router.navigate('/data')}
      backName="Back to assets"
    >
      <AssetDetail assetId={assetId} />
    </Page>
  );
}
