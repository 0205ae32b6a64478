import { ScrollView, StyleSheet, View } from 'react-native';
import type { Recognised } from '@vivid-beacon/core/src/intakeFiles';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

const MOST_COLUMNS = 30;

/** The first rows of a file as a table; time columns are marked, rows above the headings are faint. */
export function FirstRows({ recognised }: { readonly recognised: Recognised }) {
  const palette = usePalette();
  const { rows, layout, columns } = recognised;
  const shown = columns.slice(0, MOST_COLUMNS);
  const times = new Set(layout.blocks.flatMap(({ timeColumn, clockColumn }) => [timeColumn, clockColumn]));
  const body = layout.preambleRows + layout.headingRows;
  return (
    <ScrollView horizontal tabIndex={0} aria-label="First rows of the file" style={styles.scroll}>
      <View role="table">
        {rows.slice(0, body + 7).map((cells, r) => {
          const heading = r >= layout.preambleRows && r < body;
          const passed = r < layout.preambleRows;
          return (
            <View
              key={r}
              role="row"
              style={[styles.row, { borderBottomColor: heading ? palette.ink : palette.line }]}
            >
              {shown.map(({ index, numeric }) => (
                <View
                  key={index}
                  role={heading ? 'columnheader' : 'cell'}
                  style={[
                    styles.cell,
                    times.has(index) && !passed && { backgroundColor: palette.water },
                    numeric && r >= body && styles.right,
                  ]}
                >
                  <Words
                    as={heading ? 'bodyStrong' : 'second'}
                    colour={passed ? palette.ink3 : palette.ink}
                    lines={1}
                  >
                    {cells[index] ?? ''}
                  </Words>
                </View>
              ))}
            </View>
          );
        })}
      </View>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  scroll: { marginVertical: 6 },
  row: { flexDirection: 'row', borderBottomWidth: 1 },
  cell: { width: 128, paddingHorizontal: 8, paddingVertical: 6 },
  right: { alignItems: 'flex-end' },
});
