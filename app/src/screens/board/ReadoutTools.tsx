import { StyleSheet, View } from 'react-native';
import type { Readout } from '@vivid-beacon/core';
import { IconButton } from '../../components/IconButton';
import {
  CopyIcon,
  DownIcon,
  DuplicateIcon,
  EditIcon,
  NarrowerIcon,
  RemoveIcon,
  ShorterIcon,
  TallerIcon,
  UpIcon,
  WiderIcon,
} from '../../components/icons';

/** What can be done with a readout while its board is arranged. */
export interface ReadoutActions {
  readonly edit: (readout: Readout) => void;
  readonly move: (readout: Readout, step: -1 | 1) => void;
  readonly resize: (readout: Readout, by: { readonly columns?: number; readonly rows?: number }) => void;
  readonly copy: (readout: Readout) => void;
  readonly duplicate: (readout: Readout) => void;
  readonly remove: (readout: Readout) => void;
}

interface ReadoutToolsProps {
  readonly title: string;
  readonly readout: Readout;
  readonly wide: boolean;
  readonly actions: ReadoutActions;
}

/** The tools of one readout while a board is arranged. */
export function ReadoutTools({ title, readout, wide, actions }: ReadoutToolsProps) {
  return (
    <View role="toolbar" aria-label={`Change ${title}`} style={styles.bar}>
      <IconButton icon={EditIcon} name={`Edit ${title}`} onPress={() => actions.edit(readout)} />
      <IconButton
        icon={UpIcon}
        name={`Move ${title} towards the start`}
        onPress={() => actions.move(readout, -1)}
      />
      <IconButton
        icon={DownIcon}
        name={`Move ${title} towards the end`}
        onPress={() => actions.move(readout, 1)}
      />
      {wide && (
        <>
          <IconButton
            icon={WiderIcon}
            name={`Make ${title} wider`}
            onPress={() => actions.resize(readout, { columns: 1 })}
          />
          <IconButton
            icon={NarrowerIcon}
            name={`Make ${title} narrower`}
            onPress={() => actions.resize(readout, { columns: -1 })}
          />
          <IconButton
            icon={TallerIcon}
            name={`Make ${title} taller`}
            onPress={() => actions.resize(readout, { rows: 1 })}
          />
          <IconButton
            icon={ShorterIcon}
            name={`Make ${title} shorter`}
            onPress={() => actions.resize(readout, { rows: -1 })}
          />
        </>
      )}
      <IconButton icon={CopyIcon} name={`Copy ${title}`} onPress={() => actions.copy(readout)} />
      <IconButton
        icon={DuplicateIcon}
        name={`Duplicate ${title}`}
        onPress={() => actions.duplicate(readout)}
      />
      <IconButton icon={RemoveIcon} name={`Remove ${title}`} onPress={() => actions.remove(readout)} />
    </View>
  );
}

const styles = StyleSheet.create({ bar: { flexDirection: 'row', flexWrap: 'wrap', flexShrink: 1 } });
