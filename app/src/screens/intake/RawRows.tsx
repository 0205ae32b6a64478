import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import {
  COLUMN_PART_WORDS,
  isTimePart,
  type ColumnPart,
  type Recognised,
} from '@vivid-beacon/core/src/intakeFiles';
import { Words } from '../../components/Words';
import { useLayout } from '../../hooks/useLayout';
import { usePalette } from '../../theme/useTheme';

const MAX_COLUMNS = 30;
const ROWS_OF_DATA = 7;

interface RawRowsProps {
  readonly recognised: Recognised;
  /** The format names its columns itself: no row is a heading. */
  readonly ownHeadings: boolean;
  readonly onHeading: (row: number) => void;
  readonly onColumn: (column: number) => void;
}

/** Time and values first: what matters is in sight on a phone. */
const ORDER: readonly ((part: ColumnPart) => boolean)[] = [
  isTimePart,
  (part) => part === 'value',
  (part) => part === 'name',
  (part) => part === 'unit',
  (part) => part === 'leftOut',
];

/** The first rows as they stand in the file. A row can be made the heading, a column given its part. */
export function RawRows({ recognised, ownHeadings, onHeading, onColumn }: RawRowsProps) {
  const palette = usePalette();
  const { wide } = useLayout();
  const { rows, layout, columns } = recognised;
  const { preambleRows, headingRows } = layout;
  const shown = ORDER.flatMap((fits) => columns.filter(({ part }) => fits(part))).slice(0, MAX_COLUMNS);
  const ordered = wide ? [...shown].sort((a, b) => a.index - b.index) : shown;
  const body = preambleRows + headingRows;
  const cell = [styles.cell, { width: wide ? 136 : 108 }];
  const lead = (row: number) =>
    ownHeadings ? (
      <View style={styles.lead}>
        <Words as="caption" colour={palette.ink2}>
          {String(row + 1)}
        </Words>
      </View>
    ) : (
      <Pressable
        role="button"
        aria-label={`Row ${row + 1}: make it the heading`}
        onPress={() => onHeading(row)}
        style={({ pressed }) => [styles.lead, pressed && { opacity: 0.6 }]}
      >
        <Words as="caption" colour={palette.sea}>
          {String(row + 1)}
        </Words>
      </Pressable>
    );
  return (
    <View style={styles.rows}>
      {rows.slice(0, preambleRows).map((cells, r) => (
        <View key={r} style={styles.above}>
          {lead(r)}
          <Words as="second" colour={palette.ink3} style={styles.note}>
            {cells.filter((each) => each.trim() !== '').join(' · ')}
          </Words>
        </View>
      ))}
      <ScrollView horizontal tabIndex={0} aria-label="First rows of the file">
        <View role="table">
          <View role="row" style={[styles.row, { borderBottomColor: palette.ink, borderBottomWidth: 1.5 }]}>
            <View role="cell" style={styles.lead} />
            {ordered.map(({ index, heading, part }) => (
              <View key={index} role="columnheader" style={cell}>
                <Pressable
                  role="button"
                  aria-label={`Column ${heading}: ${COLUMN_PART_WORDS[part]}. Change its part`}
                  onPress={() => onColumn(index)}
                  style={({ pressed }) => [styles.head, pressed && { opacity: 0.6 }]}
                >
                  <Words as="bodyStrong">{heading}</Words>
                  <Words as="caption" colour={part === 'leftOut' ? palette.ink2 : palette.sea}>
                    {COLUMN_PART_WORDS[part].toLowerCase()}
                  </Words>
                </Pressable>
              </View>
            ))}
          </View>
          {rows.slice(preambleRows, body + ROWS_OF_DATA).map((cells, i) => {
            const r = preambleRows + i;
            const heading = r < body;
            return (
              <View
                key={r}
                role="row"
                style={[
                  styles.row,
                  { borderBottomColor: palette.line },
                  heading && { backgroundColor: palette.well },
                ]}
              >
                <View role="cell">{lead(r)}</View>
                {ordered.map(({ index, part }) => (
                  <View
                    key={index}
                    role="cell"
                    style={[
                      cell,
                      isTimePart(part) && !heading && { backgroundColor: palette.water },
                      part === 'value' && !heading && styles.right,
                    ]}
                  >
                    <Words as="second" colour={part === 'leftOut' || heading ? palette.ink3 : palette.ink}>
                      {cells[index] ?? ''}
                    </Words>
                  </View>
                ))}
              </View>
            );
          })}
        </View>
      </ScrollView>
      {columns.length > MAX_COLUMNS && (
        <Words as="second" colour={palette.ink2}>
          {`${MAX_COLUMNS} of ${columns.length} columns shown; all are listed below.`}
        </Words>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  rows: { gap: 2, paddingVertical: 4 },
  above: { flexDirection: 'row', alignItems: 'center' },
  note: { flex: 1 },
  row: { flexDirection: 'row', borderBottomWidth: 1 },
  lead: { width: 34, minHeight: 44, alignItems: 'center', justifyContent: 'center' },
  cell: { paddingHorizontal: 6, paddingVertical: 6, justifyContent: 'center' },
  head: { minHeight: 44, justifyContent: 'center' },
  right: { alignItems: 'flex-end' },
});
