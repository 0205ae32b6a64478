import { ScrollView, StyleSheet, View } from 'react-native';
import type { Recognised } from '@vivid-beacon/core';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

/** The first rows of a file as a table; the time column is marked. */
export function FirstRows({ recognised }: { readonly recognised: Recognised }) {
  const palette = usePalette();
  const { rows, layout, columns } = recognised;
  return (
    <ScrollView horizontal tabIndex={0} aria-label="First rows of the file" style={styles.scroll}>
      <View role="table">
        {rows.slice(0, 8).map((cells, r) => {
          const heading = r < layout.headingRows;
          return (
            <View
              key={r}
              role="row"
              style={[styles.row, { borderBottomColor: heading ? palette.ink : palette.line }]}
            >
              {columns.map(({ index, numeric }) => (
                <View
                  key={index}
                  role={heading ? 'columnheader' : 'cell'}
                  style={[
                    styles.cell,
                    index === layout.timeColumn && { backgroundColor: palette.water },
                    numeric && !heading && styles.right,
                  ]}
                >
                  <Words as={heading ? 'bodyStrong' : 'second'} lines={1}>
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
