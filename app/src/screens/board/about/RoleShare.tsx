import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ROLES, shareWords, type BoardShare, type Role } from '@vivid-beacon/core';
import { AssetPick } from '../../../assets/AssetPick';
import { Button } from '../../../components/Button';
import { WordRow } from '../../../components/WordRow';
import { Words } from '../../../components/Words';
import { usePalette } from '../../../theme/useTheme';

const PLANTS = { parentId: 'none' } as const;
const ROLE_OPTIONS = ROLES.map((role) => ({
  value: role,
  label: role === 'viewer' ? 'everybody' : `from ${role} up`,
}));

/** Everybody with a role, anywhere or at one plant, to share a board with. */
export function RoleShare({
  onAdd,
  onCancel,
}: {
  readonly onAdd: (share: BoardShare) => void;
  readonly onCancel: () => void;
}) {
  const palette = usePalette();
  const [role, setRole] = useState<Role>('viewer');
  const [plant, setPlant] = useState<{ readonly id: string; readonly name: string } | null>(null);
  const share: BoardShare = { to: 'role', role, plantId: plant?.id ?? null, may: 'see' };
  const names = plant ? { [`plant:${plant.id}`]: plant.name } : {};
  return (
    <View style={styles.role}>
      <WordRow name="Role" options={ROLE_OPTIONS} chosen={role} onChoose={setRole} />
      <AssetPick
        name="Plant"
        filter={PLANTS}
        maxHeight={200}
        instead={{ label: 'At any plant', onChoose: () => setPlant(null) }}
        chosen={plant?.id ?? null}
        onChoose={({ id, name }) => setPlant({ id, name })}
      />
      <Words as="second" colour={palette.ink2}>
        {`${shareWords(share, names)}, also who gets the role later.`}
      </Words>
      <View style={styles.buttons}>
        <Button variant="primary" label="Share" onPress={() => onAdd(share)} />
        <Button variant="quiet" label="Cancel" onPress={onCancel} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  role: { gap: 8 },
  buttons: { flexDirection: 'row', gap: 8 },
});
