import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Board, Readout } from '@vivid-beacon/core';
import { PICTURE_KINDS } from '@vivid-beacon/core/src/api/pictures';
import { showsWords } from '@vivid-beacon/core/src/boards';
import { linkTo } from '../../../api/client';
import { Button } from '../../../components/Button';
import { Row } from '../../../components/Row';
import { Words } from '../../../components/Words';
import { useReadoutWords } from '../../../readouts/ReadoutView';
import { usePalette } from '../../../theme/useTheme';
import { download } from '../../download';

/** How the board is looked at, as its address says it. */
export type BoardLook = Readonly<Record<'window' | 'scope' | 'hours' | 'focus', string | undefined>>;

type Kind = (typeof PICTURE_KINDS)[number];

const KIND_WORDS: Readonly<Record<Kind, string>> = {
  png: 'Picture (PNG)',
  svg: 'Drawing (SVG)',
  csv: 'Rows (CSV)',
  xlsx: 'Workbook (XLSX)',
  ndjson: 'Rows (NDJSON)',
};
/** Of a note there is a picture, but no numbers. */
const PICTURES: readonly Kind[] = ['png', 'svg'];

/** The readouts of a board as files, as they are looked at now: each as a picture or as rows, all numbers as one workbook. */
export function BoardFiles({ board, look }: { readonly board: Board; readonly look: BoardLook }) {
  const palette = usePalette();
  const [listed, setListed] = useState(false);
  const [open, setOpen] = useState<string | null>(null);
  const { readouts } = board.document;
  if (readouts.length === 0) return null;
  return (
    <View style={styles.files}>
      <Words as="sectionHead" heading={2}>
        As files
      </Words>
      <Words as="second" colour={palette.ink2}>
        With the window, scope and hours that the board is looked at now.
      </Words>
      <View style={styles.buttons}>
        <Button
          variant="quiet"
          label={listed ? 'Hide the readouts' : 'One readout'}
          onPress={() => setListed(!listed)}
        />
        <Button
          label="All numbers (XLSX)"
          onPress={() =>
            download(linkTo('GET /api/boards/:id/numbers.xlsx', { params: { id: board.id }, query: look }))
          }
        />
      </View>
      {listed &&
        readouts.map((readout) => (
          <FilesOfReadout
            key={readout.id}
            readout={readout}
            open={open === readout.id}
            onOpen={() => setOpen(open === readout.id ? null : readout.id)}
            onKind={(kind) =>
              download(
                linkTo('GET /api/boards/:id/readouts/:picture', {
                  params: { id: board.id, picture: encodeURIComponent(`${readout.id}.${kind}`) },
                  query: { ...look, width: WIDTH, height: null, theme: 'day', scale: 2, bare: false },
                }),
              )
            }
          />
        ))}
    </View>
  );
}

/** Width of a picture, px; twice as many pixels. */
const WIDTH = 720;

function FilesOfReadout({
  readout,
  open,
  onOpen,
  onKind,
}: {
  readonly readout: Readout;
  readonly open: boolean;
  readonly onOpen: () => void;
  readonly onKind: (kind: Kind) => void;
}) {
  const { title } = useReadoutWords(readout);
  const kinds = showsWords(readout) ? PICTURES : PICTURE_KINDS;
  return (
    <View>
      <Row title={title} onPress={onOpen} />
      {open && (
        <View style={[styles.buttons, styles.kinds]} role="group" aria-label={`${title} as a file`}>
          {kinds.map((kind) => (
            <Button key={kind} variant="quiet" label={KIND_WORDS[kind]} onPress={() => onKind(kind)} />
          ))}
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  files: { gap: 8 },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  kinds: { paddingVertical: 8 },
});
