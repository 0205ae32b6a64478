import { StyleSheet, View } from 'react-native';
import { useStore } from 'zustand';
import { formatLength } from '@vivid-beacon/core';
import {
  REPEATED_HOUR_WORDS,
  REPEATED_HOURS,
  SEPARATOR_WORDS,
  SEPARATORS,
  TIME_FORMAT_WORDS,
  TIME_FORMATS,
  type RepeatedHour,
} from '@vivid-beacon/core/src/intakeFiles';
import { Section } from '../../components/Section';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import type { createIntakeStore } from '../../stores/intakeStore';
import { usePalette } from '../../theme/useTheme';

const COUNTS = ['0', '1', '2', '3'].map((value) => ({ value, label: value }));
const MOST_TIME_CHOICES = 12;

interface LayoutCheckProps {
  readonly store: ReturnType<typeof createIntakeStore>;
  readonly zone: string;
  /** True while the file itself cannot tell day from month. */
  readonly mustAsk: boolean;
}

/** How the file was understood; every point can be corrected. */
export function LayoutCheck({ store, zone, mustAsk }: LayoutCheckProps) {
  const palette = usePalette();
  const { look, actions } = useStore(store);
  if (!look) return null;
  const { layout, columns, timeFormats, stepMs } = look.recognised;
  const label = (text: string, asks = false) => (
    <Words as="second" colour={asks ? palette.cautionT : palette.ink2}>
      {text}
    </Words>
  );
  const timeColumns = new Set(layout.blocks.map(({ timeColumn }) => timeColumn));
  return (
    <Section title="How the file is read">
      <View style={styles.points}>
        {look.sheets.length > 1 && (
          <View>
            {label('Sheet')}
            <WordRow
              name="Sheet"
              options={look.sheets.map((value) => ({ value, label: value }))}
              chosen={look.sheet}
              onChoose={actions.chooseSheet}
            />
          </View>
        )}
        {layout.separator !== null && (
          <View>
            {label('Between columns')}
            <WordRow
              name="Between columns"
              options={SEPARATORS.map((value) => ({ value, label: SEPARATOR_WORDS[value] }))}
              chosen={layout.separator}
              onChoose={(separator) => actions.correctLayout({ separator, timeColumn: undefined })}
            />
          </View>
        )}
        <View>
          {label('Decimal sign')}
          <WordRow
            name="Decimal sign"
            options={[
              { value: '.', label: 'dot' },
              { value: ',', label: 'comma' },
            ]}
            chosen={layout.decimal}
            onChoose={(decimal) => actions.correctLayout({ decimal: decimal as '.' | ',' })}
          />
        </View>
        <View>
          {label(
            `Rows of headings${layout.preambleRows > 0 ? `, after ${layout.preambleRows} rows that are passed over` : ''}`,
          )}
          <WordRow
            name="Rows of headings"
            options={COUNTS}
            chosen={String(layout.headingRows)}
            onChoose={(rows) => actions.correctLayout({ headingRows: Number(rows) })}
          />
        </View>
        <View>
          {label('What a row holds')}
          <WordRow
            name="What a row holds"
            options={[
              { value: 'columns', label: 'a column for each metric' },
              { value: 'samples', label: 'one sample, with its name' },
            ]}
            chosen={layout.shape}
            onChoose={(shape) => actions.correctLayout({ shape: shape as 'columns' | 'samples' })}
          />
        </View>
        <View>
          {label(
            layout.blocks.length > 1
              ? `Columns of times: ${layout.blocks.length} blocks side by side`
              : 'Column of times',
          )}
          <WordRow
            name="Column of times"
            options={columns
              .filter(
                ({ index, numeric }) => timeColumns.has(index) || (!numeric && index < MOST_TIME_CHOICES),
              )
              .map(({ index, heading }) => ({ value: String(index), label: heading }))}
            chosen={String(layout.blocks[0].timeColumn)}
            onChoose={(index) => actions.correctLayout({ timeColumn: Number(index), timeFormat: undefined })}
          />
        </View>
        <View>
          {label(
            mustAsk
              ? 'How times are written: the file itself cannot tell, please choose'
              : 'How times are written',
            mustAsk,
          )}
          <WordRow
            name="How times are written"
            options={(timeFormats.length > 0 ? timeFormats : TIME_FORMATS).map((value) => ({
              value,
              label: TIME_FORMAT_WORDS[value],
            }))}
            chosen={mustAsk ? null : layout.timeFormat}
            onChoose={(timeFormat) => actions.correctLayout({ timeFormat })}
          />
        </View>
        <View>
          {label('When the clock is set back, the hour that comes twice is taken')}
          <WordRow
            name="Repeated hour"
            options={REPEATED_HOURS.map((value) => ({ value, label: REPEATED_HOUR_WORDS[value] }))}
            chosen={layout.repeatedHour}
            onChoose={(repeatedHour) => actions.correctLayout({ repeatedHour: repeatedHour as RepeatedHour })}
          />
        </View>
      </View>
      {label(
        `${stepMs === null ? 'One row only' : `About ${formatLength(stepMs)} between rows`}. Times without an offset are read as local time of ${zone}.`,
      )}
    </Section>
  );
}

const styles = StyleSheet.create({
  points: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 36, rowGap: 2 },
});
