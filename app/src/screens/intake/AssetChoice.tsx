import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Asset } from '@vivid-beacon/core';
import { Field } from '../../components/Field';
import { PickList } from '../../components/PickList';
import { WordRow } from '../../components/WordRow';

/** An asset that is there (id), or a new one with a name and a zone. */
export interface ChosenAsset {
  readonly id: string | null;
  readonly name: string;
  readonly zone: string;
}

interface AssetChoiceProps {
  readonly assets: readonly Asset[];
  readonly chosen: ChosenAsset;
  readonly onChoose: (asset: ChosenAsset) => void;
}

const WAYS = [
  { value: 'new' as const, label: 'New asset' },
  { value: 'existing' as const, label: 'Existing asset' },
];

/** Which asset the new metrics belong to. */
export function AssetChoice({ assets, chosen, onChoose }: AssetChoiceProps) {
  const [way, setWay] = useState<'new' | 'existing'>(chosen.id === null ? 'new' : 'existing');
  const choose = (next: 'new' | 'existing'): void => {
    setWay(next);
    onChoose({ ...chosen, id: null });
  };
  return (
    <View style={styles.choice}>
      <WordRow name="Asset" options={WAYS} chosen={way} onChoose={choose} />
      {way === 'new' ? (
        <View style={styles.fields}>
          <Field
            label="Name of the asset"
            value={chosen.name}
            onChange={(name) => onChoose({ ...chosen, name })}
          />
          <Field label="Time zone" value={chosen.zone} onChange={(zone) => onChoose({ ...chosen, zone })} />
        </View>
      ) : (
        <PickList
          name="Asset"
          maxHeight={260}
          options={assets.map((asset) => ({
            value: asset.id,
            label: asset.name,
            detail: [plantName(asset, assets), asset.zone].join(' · '),
          }))}
          chosen={chosen.id}
          onChoose={(id) => onChoose({ ...chosen, id })}
        />
      )}
    </View>
  );
}

function plantName(asset: Asset, assets: readonly Asset[]): string {
  return assets.find(({ id }) => id === asset.plantId)?.name ?? '';
}

const styles = StyleSheet.create({
  choice: { gap: 8, paddingVertical: 6 },
  fields: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
});
