import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { usePlants } from '../../api/catalogue';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { FileIcon, PlusIcon } from '../../components/icons';
import { Page } from '../../components/Page';
import { Tray } from '../../components/Tray';
import { useLayout } from '../../hooks/useLayout';
import { usePalette } from '../../theme/useTheme';
import { mayBuild } from '../../api/mayAct';
import { AssetDetail } from './AssetDetail';
import { AssetForm } from './AssetForm';
import { lazyScreen } from '../lazyScreen';
import { AssetTree } from './AssetTree';
import { DataPlaces } from './DataPlaces';

const AssetListImport = lazyScreen(async () => (await import('./fileScreens')).AssetListImport);

/** The asset tree; on wide screens with the chosen asset beside it. */
export function AssetsScreen() {
  const palette = usePalette();
  const router = useRouter();
  const { wide } = useLayout();
  const build = mayBuild(usePerson());
  const plants = usePlants();
  const [chosen, setChosen] = useState<string | null>(null);
  const [adding, setAdding] = useState<'asset' | 'list' | null>(null);
  const shown = chosen ?? plants.data?.[0]?.id ?? null;
  return (
    <Page
      title="Data"
      full
      top={<DataPlaces open="/data" />}
      tools={
        build && (
          <View style={styles.tools}>
            <Button
              label={wide ? 'Add asset' : 'Add'}
              name="Add asset"
              icon={<PlusIcon size={20} color={palette.ink} strokeWidth={1.75} />}
              onPress={() => setAdding('asset')}
            />
            <Button
              variant="primary"
              label="Intake"
              icon={<FileIcon size={20} color={palette.btnT} strokeWidth={1.75} />}
              onPress={() => router.push('/data/intake')}
            />
          </View>
        )
      }
    >
      <View style={wide && styles.beside}>
        <View style={wide && styles.tree}>
          <AssetTree
            chosen={wide ? shown : null}
            onChoose={(id) => (wide ? setChosen(id) : router.push(`/data/assets/${id}`))}
          />
          {build && (
            <View style={styles.list}>
              <Button variant="quiet" label="Add assets from a list" onPress={() => setAdding('list')} />
              <Button variant="quiet" label="Removed" onPress={() => router.push('/data/removed')} />
            </View>
          )}
        </View>
        {wide && shown && (
          <View style={[styles.detail, { borderLeftColor: palette.ink }]}>
            <AssetDetail key={shown} assetId={shown} headed />
          </View>
        )}
      </View>
      <Tray title="New asset" open={adding === 'asset'} onClose={() => setAdding(null)}>
        <AssetForm
          asset={null}
          parentId={wide ? shown : null}
          onDone={(id) => {
            setAdding(null);
            setChosen(id);
          }}
        />
      </Tray>
      <Tray title="Assets from a list" open={adding === 'list'} onClose={() => setAdding(null)}>
        {adding === 'list' && <AssetListImport />}
      </Tray>
    </Page>
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 8 },
  beside: { flexDirection: 'row', gap: 20 },
  tree: { flex: 2, minWidth: 0 },
  detail: { flex: 3, minWidth: 0, borderLeftWidth: 1.5, paddingLeft: 20 },
  list: { paddingVertical: 12, alignItems: 'flex-start' },
});
