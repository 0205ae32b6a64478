import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Readout } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { IconButton } from '../../components/IconButton';
import { DownIcon, EditIcon, MoreIcon, UpIcon } from '../../components/icons';
import { Tray } from '../../components/Tray';
import { Words } from '../../components/Words';

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

/** The tools of one readout while a board is arranged: the usual ones at hand, the others in a tray. */
export function ReadoutTools({ title, readout, wide, actions }: ReadoutToolsProps) {
  const [more, setMore] = useState(false);
  const close = (): void => setMore(false);
  const size = (columns: number, rows: number) => (): void => actions.resize(readout, { columns, rows });
  const done = (act: (readout: Readout) => void) => (): void => {
    act(readout);
    close();
  };
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
      <IconButton icon={MoreIcon} name={`More for ${title}`} onPress={() => setMore(true)} />
      <Tray title={title} open={more} onClose={close}>
        {wide && (
          <>
            <Words as="second">
              {readout.size
                ? `${readout.size.columns} of 12 columns, ${readout.size.rows} rows`
                : 'Size as usual for its form'}
            </Words>
            <View style={styles.buttons}>
              <Button label="Wider" onPress={size(1, 0)} />
              <Button label="Narrower" onPress={size(-1, 0)} />
              <Button label="Taller" onPress={size(0, 1)} />
              <Button label="Shorter" onPress={size(0, -1)} />
            </View>
          </>
        )}
        <View style={styles.buttons}>
          <Button label="Duplicate" onPress={done(actions.duplicate)} />
          <Button label="Copy" onPress={done(actions.copy)} />
          <Button variant="quiet" label="Remove" onPress={done(actions.remove)} />
        </View>
      </Tray>
    </View>
  );
}

const styles = StyleSheet.create({
  bar: { flexDirection: 'row', flexWrap: 'wrap', flexShrink: 1 },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
});
