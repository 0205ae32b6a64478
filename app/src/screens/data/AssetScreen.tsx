import { useRouter } from 'expo-router';
import { useAssets, useMetrics } from '../../api/queries';
import { Answer } from '../../components/Answer';
import { Page } from '../../components/Page';
import { AssetDetail } from './AssetDetail';
import { pathOf } from './assetTree';

/** One asset as a page of its own, for the phone and for links. */
export function AssetScreen({ assetId }: { readonly assetId: string }) {
  const router = useRouter();
  const assets = useAssets();
  const metrics = useMetrics();
  const asset = assets.data?.find(({ id }) => id === assetId);
  return (
    <Page
      title={asset?.name ?? 'Asset'}
      under={asset && assets.data ? pathOf(asset, assets.data).slice(0, -1).join(' / ') : undefined}
      onBack={() => router.navigate('/data')}
      backName="Back to assets"
    >
      <Answer query={assets} reading="Reading assets">
        {(tree) => (
          <Answer query={metrics} reading="Reading metrics">
            {(rows) => <AssetDetail assetId={assetId} assets={tree} metrics={rows} />}
          </Answer>
        )}
      </Answer>
    </Page>
  );
}
