import { StyleSheet, View } from 'react-native';
import type { IndicatorDefinition, Person } from '@vivid-beacon/core';
import { itemsOf } from '../../api/pages';
import { useBoardPages } from '../../api/boards';
import { SearchedPick } from '../../assets/SearchedPick';
import { PickList } from '../../components/PickList';
import { useSearch } from '../../components/SearchField';
import { Words } from '../../components/Words';

interface OwnerPanelProps {
  readonly definition: IndicatorDefinition;
  readonly people: readonly Person[];
  readonly onChange: (part: Partial<IndicatorDefinition>) => void;
}

const NONE = 'none';

/** Owner of an indicator, and the board that shows it in context. */
export function OwnerPanel({ definition, people, onChange }: OwnerPanelProps) {
  const search = useSearch();
  const found = useBoardPages({ search: search.settled });
  return (
    <View style={styles.panel}>
      <PickList
        name="Owner"
        maxHeight={240}
        options={[
          { value: NONE, label: 'No owner' },
          ...people.map(({ id, name, role }) => ({ value: id, label: name, detail: role })),
        ]}
        chosen={definition.ownerId ?? NONE}
        onChoose={(id) => onChange({ ownerId: id === NONE ? null : id })}
      />
      <Words as="bodyStrong">Its board</Words>
      <SearchedPick
        name="Its board"
        maxHeight={240}
        instead={{ label: 'None', onChoose: () => onChange({ boardId: null }) }}
        options={itemsOf(found.data).map(({ id, title, ownerName }) => ({
          value: id,
          label: title,
          detail: ownerName,
        }))}
        found={found}
        search={search}
        chosen={definition.boardId}
        onChoose={(id) => onChange({ boardId: id })}
      />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8 } });
