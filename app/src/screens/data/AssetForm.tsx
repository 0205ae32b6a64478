import { Refusal } from '../../components/Refusal';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Asset } from '@vivid-beacon/core';
import { useAssetsById } from '../../api/catalogue';
import { useSaveAsset } from '../../api/dataChanges';
import { AssetPick } from '../../assets/AssetPick';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Words } from '../../components/Words';
import { parseAttributes, formatAttributes } from './attributeText';
import { deviceZone } from '../deviceZone';

interface AssetFormProps {
  /** null = a new one. */
  readonly asset: Asset | null;
  readonly parentId: string | null;
  readonly onDone: (id: string) => void;
}

/** Adds an asset, or renames, moves and describes one. */
export function AssetForm({ asset, parentId, onDone }: AssetFormProps) {
  const save = useSaveAsset();
  const [name, setName] = useState(asset?.name ?? '');
  const [kind, setKind] = useState(asset?.kind ?? (parentId === null ? 'plant' : 'machine'));
  const [parent, setParent] = useState(parentId);
  /** null = not typed: that of the asset above, or of this device for a plant. */
  const [typed, setTyped] = useState<string | null>(asset?.ownZone ?? null);
  const zone = typed ?? (parent === null ? deviceZone() : '');
  const [facts, setFacts] = useState(formatAttributes(asset?.attributes ?? {}));
  const [moving, setMoving] = useState(false);
  // Elsewhere the clock is that of the place, unless another was typed here.
  const move = (to: string | null): void => {
    setParent(to);
    if (to !== asset?.parentId && typed === (asset?.ownZone ?? null)) setTyped(null);
  };
  const read = parseAttributes(facts);
  const under = useAssetsById([parent]).byId.get(parent ?? '');
  return (
    <>
      <Field label="Name of the asset" value={name} onChange={setName} />
      <Field label="Kind, such as plant, area, machine, meter, desk" value={kind} onChange={setKind} />
      <View style={styles.place}>
        <Words as="body">
          {parent === null ? 'At the top level, as a plant' : `Under ${under?.title ?? ''}`}
        </Words>
        <Button
          variant="quiet"
          label={moving ? 'Keep it there' : 'Move'}
          onPress={() => setMoving(!moving)}
        />
      </View>
      {moving && (
        <AssetPick
          name="Parent"
          maxHeight={240}
          leaveOut={asset?.id}
          instead={{
            label: 'At the top, as a plant',
            onChoose: () => {
              move(null);
              setMoving(false);
            },
          }}
          chosen={parent}
          onChoose={({ id }) => {
            move(id);
            setMoving(false);
          }}
        />
      )}
      <Field
        label={
          parent === null
            ? 'Time zone'
            : `Time zone, if it is not that of ${under?.name ?? 'the asset above'}`
        }
        value={zone}
        onChange={setTyped}
        placeholder={under?.zone ?? 'Europe/London'}
      />
      <Field
        label="Attributes, one a line, such as Floor area (m²): 420"
        value={facts}
        onChange={setFacts}
        multiline
        error={typeof read === 'string' ? read : undefined}
      />
      <Refusal of={save} />
      <Button
        variant="primary"
        label={asset ? 'Save asset' : 'Add asset'}
        disabled={save.isPending || typeof read === 'string'}
        onPress={() =>
          save.mutate(
            {
              id: asset?.id ?? null,
              name,
              kind,
              parentId: parent,
              zone: zone.trim() === '' ? null : zone.trim(),
              attributes: read as Record<string, string | number>,
            },
            { onSuccess: ({ id }) => onDone(id) },
          )
        }
      />
    </>
  );
}

const styles = StyleSheet.create({
  place: { flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', gap: 10 },
});
