import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ROLES, type Rights, type Role } from '@vivid-beacon/core';
import { AssetPick } from '../../assets/AssetPick';
import { useAssetsById } from '../../api/catalogue';
import { Button } from '../../components/Button';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface RightsFieldProps {
  readonly rights: Rights;
  readonly onChange: (rights: Rights) => void;
}

const ROLE_WORDS: Readonly<Record<Role, string>> = {
  viewer: 'reads boards and alarms',
  operator: 'also acknowledges, remarks, takes and hands out flags',
  analyst: 'also builds boards, indicators and rules, and brings data in',
  administrator: 'also erases data, and with the role at every plant manages people',
};
const OPTIONS = ROLES.map((value) => ({ value, label: value }));
const PLANTS = { parentId: 'none' } as const;

/** A role at every plant, and roles at single plants. */
export function RightsField({ rights, onChange }: RightsFieldProps) {
  const palette = usePalette();
  const [adding, setAdding] = useState(false);
  const ids = Object.keys(rights.plants);
  const { byId } = useAssetsById(ids);
  const setPlant = (id: string, role: Role | null): void => {
    const { [id]: _before, ...others } = rights.plants;
    onChange({ ...rights, plants: role === null ? others : { ...others, [id]: role } });
  };
  return (
    <View style={styles.field}>
      <Words as="second" colour={palette.ink2}>
        Role at every plant, also at those to come
      </Words>
      <WordRow
        name="Role at every plant"
        options={[{ value: 'none' as const, label: 'none' }, ...OPTIONS]}
        chosen={rights.everywhere ?? 'none'}
        onChoose={(role) => onChange({ ...rights, everywhere: role === 'none' ? null : role })}
      />
      {rights.everywhere && (
        <Words
          as="second"
          colour={palette.ink2}
        >{`A person with it ${ROLE_WORDS[rights.everywhere]}.`}</Words>
      )}
      {ids.map((id) => {
        const name = byId.get(id)?.name ?? `Plant ${id}`;
        return (
          <View key={id} style={[styles.plant, { borderTopColor: palette.line }]}>
            <Words as="bodyStrong">{name}</Words>
            <WordRow
              name={`Role at ${name}`}
              options={OPTIONS}
              chosen={rights.plants[id]}
              onChoose={(role) => setPlant(id, role)}
            />
            <Button
              variant="quiet"
              label="Take away"
              name={`Take the role at ${name} away`}
              onPress={() => setPlant(id, null)}
            />
          </View>
        );
      })}
      <View style={styles.start}>
        <Button variant="quiet" label="Add a role at one plant" onPress={() => setAdding(true)} />
      </View>
      <Tray title="Role at one plant" open={adding} onClose={() => setAdding(false)}>
        {adding && (
          <AssetPick
            name="Plant"
            filter={PLANTS}
            maxHeight={320}
            chosen={null}
            onChoose={({ id }) => {
              setPlant(id, rights.plants[id] ?? 'viewer');
              setAdding(false);
            }}
          />
        )}
      </Tray>
    </View>
  );
}

const styles = StyleSheet.create({
  field: { gap: 6 },
  plant: { borderTopWidth: 1, paddingTop: 8, gap: 2, alignItems: 'flex-start' },
  start: { alignItems: 'flex-start', paddingTop: 6 },
});
