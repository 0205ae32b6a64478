import { StyleSheet, View } from 'react-native';
import type { IndicatorDefinition, Person } from '@vivid-beacon/core';
import { useBoards } from '../../api/queries';
import { PickList } from '../../components/PickList';
import { Words } from '../../components/Words';

interface OwnerPanelProps {
  readonly definition: IndicatorDefinition;
  readonly people: readonly Person[];
  readonly onChange: (part: Partial<IndicatorDefinition>) => void;
}

const NONE = 'none';

/** Who answers for an indicator, and the board that shows it in its context. */
export function OwnerPanel({ definition, people, onChange }: OwnerPanelProps) {
  const boards = useBoards().data ?? [];
  return (
    <View style={styles.panel}>
      <PickList
        name="Who answers for it"
        maxHeight={240}
        options={[
          { value: NONE, label: 'Nobody named' },
          ...people.map(({ id, name, role }) => ({ value: id, label: name, detail: role })),
        ]}
        chosen={definition.ownerId ?? NONE}
        onChoose={(id) => onChange({ ownerId: id === NONE ? null : id })}
      />
      <Words as="bodyStrong">Its board</Words>
      <PickList
        name="Its board"
        maxHeight={240}
        options={[
          { value: NONE, label: 'None' },
          ...boards.map(({ id, title, ownerName }) => ({ value: id, label: title, detail: ownerName })),
        ]}
        chosen={definition.boardId ?? NONE}
        onChoose={(id) => onChange({ boardId: id === NONE ? null : id })}
      />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8 } });
