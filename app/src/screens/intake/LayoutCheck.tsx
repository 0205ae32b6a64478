import { StyleSheet, View } from 'react-native';
import { useStore } from 'zustand';
import {
  COLLISION_RULE_WORDS,
  COLLISION_RULES,
  REPEATED_HOUR_WORDS,
  REPEATED_HOURS,
  SEPARATOR_WORDS,
  SEPARATORS,
  timeEffect,
  TIME_FORMAT_WORDS,
  TIME_FORMATS,
  type TimeFormat,
} from '@vivid-beacon/core/src/intakeFiles';
import { STAMP_WORDS, STAMPS } from '@vivid-beacon/core';
import { NumberField } from '../../components/NumberField';
import { Section } from '../../components/Section';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import type { createIntakeStore } from '../../stores/intakeStore';
import { usePalette } from '../../theme/useTheme';

const COUNTS = ['0', '1', '2', '3'].map((value) => ({ value, label: value }));

const AS_SET = 'asSet';
const STAMP_OPTIONS = [
  { value: AS_SET, label: 'as each metric says' } as const,
  ...STAMPS.map((value) => ({ value, label: STAMP_WORDS[value] })),
];

interface LayoutCheckProps {
  readonly store: ReturnType<typeof createIntakeStore>;
}

/** How the file was understood, with an example beside each choice; every point can be corrected. */
export function LayoutCheck({ store }: LayoutCheckProps) {
  const palette = usePalette();
  const { look, zone, plans, actions } = useStore(store);
  if (!look) return null;
  const { layout, columns } = look.recognised;
  const ownHeadings =
    look.counted === 'item' || look.encoding.includes('JSON') || look.encoding.includes('xposition');
  const label = (text: string) => (
    <Words as="second" colour={palette.ink2}>
      {text}
    </Words>
  );
  const feedsAmounts = Object.values(plans).some(
    (plan) => plan.to === 'existing' || (plan.to === 'new' && plan.kind === 'amount'),
  );
  const time = columns.find(({ part }) => part === 'time');
  const readable = TIME_FORMATS.filter(
    (format) => format === layout.timeFormat || (time && timeEffect(time.example, format) !== null),
  );
  const formatLabel = (format: TimeFormat): string => {
    const read = time && timeEffect(time.example, format);
    return read ? `${TIME_FORMAT_WORDS[format].replace(/ \(.*/, '')}: ${read}` : TIME_FORMAT_WORDS[format];
  };
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
              onChoose={(separator) => actions.correctLayout({ separator, parts: undefined })}
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
        {!ownHeadings && (
          <>
            <View style={styles.field}>
              <NumberField
                label="Rows above the headings"
                value={layout.preambleRows}
                onChange={(rows) => {
                  if (Number.isInteger(rows) && rows >= 0 && rows <= 1000) {
                    actions.correctLayout({ preambleRows: rows, headingRows: layout.headingRows });
                  }
                }}
              />
            </View>
            <View>
              {label('Rows of headings')}
              <WordRow
                name="Rows of headings"
                options={COUNTS}
                chosen={String(layout.headingRows)}
                onChoose={(rows) =>
                  actions.correctLayout({ headingRows: Number(rows), preambleRows: layout.preambleRows })
                }
              />
            </View>
          </>
        )}
        {time && (
          <View>
            {label(`How times are written, such as ${time.example}`)}
            <WordRow
              name="How times are written"
              options={readable.map((value) => ({ value, label: formatLabel(value) }))}
              chosen={
                look.recognised.questions.some(({ about }) => about === 'dayOrMonth')
                  ? null
                  : layout.timeFormat
              }
              onChoose={(timeFormat) => actions.correctLayout({ timeFormat })}
            />
          </View>
        )}
        {feedsAmounts && (
          <View>
            {label('What the times of amounts stand for')}
            <WordRow
              name="What the times of amounts stand for"
              options={STAMP_OPTIONS}
              chosen={layout.stamped ?? AS_SET}
              onChoose={(value) => actions.correctLayout({ stamped: value === AS_SET ? undefined : value })}
            />
          </View>
        )}
        <View>
          {label('When the clock is set back, the hour that comes twice is taken')}
          <WordRow
            name="Repeated hour"
            options={REPEATED_HOURS.map((value) => ({ value, label: REPEATED_HOUR_WORDS[value] }))}
            chosen={layout.repeatedHour}
            onChoose={(repeatedHour) => actions.correctLayout({ repeatedHour })}
          />
        </View>
        {layout.collisions !== null && (
          <View>
            {label('When values of one series collide at one time, keep')}
            <WordRow
              name="When values collide"
              options={COLLISION_RULES.map((value) => ({ value, label: COLLISION_RULE_WORDS[value] }))}
              chosen={layout.collisions}
              onChoose={(collisions) => actions.correctLayout({ collisions })}
            />
          </View>
        )}
        {layout.events !== null && (
          <View>
            {label(
              `${layout.events.of === 'count' ? 'Rows are counted' : 'Values are summed'} in each ${layout.events.per}`,
            )}
            <WordRow
              name="Rows are events"
              options={[{ value: 'no', label: 'take every row as a sample instead' }]}
              chosen={null}
              onChoose={() => actions.correctLayout({ events: undefined })}
            />
          </View>
        )}
        {(look.balance.leftOut.total > 0 || layout.totals === 'read') && (
          <View>
            {label('Rows that hold the total of those above')}
            <WordRow
              name="Totals"
              options={[
                { value: 'leftOut', label: 'left out' },
                { value: 'read', label: 'read like any other' },
              ]}
              chosen={layout.totals}
              onChoose={(totals) => actions.correctLayout({ totals: totals as 'leftOut' | 'read' })}
            />
          </View>
        )}
      </View>
      {label(`Times without an offset are read as local time of ${zone}.`)}
    </Section>
  );
}

const styles = StyleSheet.create({
  points: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 36, rowGap: 2 },
  field: { width: 170 },
});
