import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Asset } from '@vivid-beacon/core';
import { AssetPick } from '../../assets/AssetPick';
import { Field } from '../../components/Field';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import type { ChosenAsset } from '../../stores/intakePlans';
import { usePalette } from '../../theme/useTheme';

interface AssetChoiceProps {
  readonly chosen: ChosenAsset;
  /** @param existing the asset itself, where one that is there was chosen. */
  readonly onChoose: (asset: ChosenAsset, existing?: Asset) => void;
  /** Name columns of the file with the words in them: any of them may name assets. */
  readonly nameColumns: readonly {
    readonly index: number;
    readonly heading: string;
    readonly words: readonly string[];
  }[];
}

const WAYS = [
  { value: 'new' as const, label: 'New asset' },
  { value: 'existing' as const, label: 'Existing asset' },
];

/** Which asset the new metrics belong to. */
export function AssetChoice({ chosen, onChoose, nameColumns }: AssetChoiceProps) {
  const palette = usePalette();
  const naming = nameColumns.find(({ index }) => index === chosen.namedBy);
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
        <AssetPick
          name="Asset"
          maxHeight={260}
          chosen={chosen.id}
          onChoose={(asset) => onChoose({ ...chosen, id: asset.id }, asset)}
        />
      )}
      {nameColumns.length > 0 && (
        <View>
          <Words as="second" colour={palette.ink2}>
            Assets under it, one for each word of a column
          </Words>
          <WordRow
            name="Assets are named by"
            options={[
              { value: 'none', label: 'none: all belong to the asset itself' },
              ...nameColumns.map(({ index, heading }) => ({ value: String(index), label: heading })),
            ]}
            chosen={chosen.namedBy === null ? 'none' : String(chosen.namedBy)}
            onChoose={(value) => onChoose({ ...chosen, namedBy: value === 'none' ? null : Number(value) })}
          />
          {naming && (
            <Words as="second" colour={palette.ink2}>
              {`${naming.words.slice(0, 12).join(', ')}${naming.words.length > 12 ? ` and ${naming.words.length - 12} more` : ''}. An asset of that name that is there already is used.`}
            </Words>
          )}
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  choice: { gap: 8, paddingVertical: 6 },
  fields: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
});
