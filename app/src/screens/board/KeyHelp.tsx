import { StyleSheet, View } from 'react-native';
import { Tray } from '../../components/Tray';
import { Words } from '../../components/Words';

const LOOKING: readonly (readonly [string, string])[] = [
  ['D  S  M  Y', 'Today, 7 days, month, year so far'],
  ['W', 'Go to the time rail; then ← and → move a divider, with Shift by six ticks'],
  [',  .', 'The breach before, the breach after: the window goes there'],
  ['Tab', 'Go to the next readout, row or number'],
  ['← →', 'On a trend: walk through its points'],
  ['+  −', 'On a trend: zoom in and out around the point'],
  ['Shift ← →', 'On a trend: move along by a quarter of it'],
  ['Enter', 'On a trend: the numbers of what is shown; on a number: how it was made'],
  ['Esc', 'Release the focus, close what is open'],
  ['?', 'This list'],
];
const BUILDING: readonly (readonly [string, string])[] = [
  ['N', 'New readout'],
  ['E', 'Arrange, and be done with it'],
  ['← →', 'On a handle: move the readout by one place'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z', 'Redo'],
  ['Ctrl V', 'Paste the readout copied last'],
];

/** The keys of a board. */
export function KeyHelp({
  open,
  build,
  onClose,
}: {
  readonly open: boolean;
  readonly build: boolean;
  readonly onClose: () => void;
}) {
  return (
    <Tray title="Keys of this board" open={open} onClose={onClose}>
      {[...LOOKING, ...(build ? BUILDING : [])].map(([key, what]) => (
        <View key={what} style={styles.row}>
          <View style={styles.key}>
            <Words as="bodyStrong">{key}</Words>
          </View>
          <View style={styles.what}>
            <Words as="body">{what}</Words>
          </View>
        </View>
      ))}
    </Tray>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 12 },
  key: { width: 110 },
  what: { flex: 1, minWidth: 0 },
});
