import { StyleSheet, View } from 'react-native';
import { useStore } from 'zustand';
import {
  CENTURIES,
  CENTURY_WORDS,
  COLLISION_RULE_WORDS,
  COLLISION_RULES,
  EVENT_PERIODS,
  timeEffect,
  TIME_FORMAT_WORDS,
  type FoundColumn,
  type Question,
  type Recognised,
  type TimeFormat,
} from '@vivid-beacon/core/src/intakeFiles';
import { Button } from '../../components/Button';
import { MomentField } from '../../components/MomentField';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import type { createIntakeStore } from '../../stores/intakeStore';
import { usePalette } from '../../theme/useTheme';

type Store = ReturnType<typeof createIntakeStore>;

interface QuestionListProps {
  readonly store: Store;
  readonly recognised: Recognised;
  readonly onColumn: (column: number) => void;
}

/** What only a person can say, each with its answers. Nothing is taken while one is open. */
export function QuestionList({ store, recognised, onColumn }: QuestionListProps) {
  const palette = usePalette();
  if (recognised.questions.length === 0) return null;
  return (
    <View
      role="region"
      aria-label="Answer these first"
      style={[styles.list, { borderColor: palette.caution, backgroundColor: palette.cautionW }]}
    >
      {recognised.questions.map((question) => (
        <View key={question.about} style={styles.question}>
          <Words as="bodyStrong" colour={palette.cautionT}>
            {question.words}
          </Words>
          <Answers question={question} store={store} recognised={recognised} onColumn={onColumn} />
        </View>
      ))}
    </View>
  );
}

function Answers({
  question,
  store,
  recognised,
  onColumn,
}: QuestionListProps & { readonly question: Question }) {
  const { actions, zone, file, correct } = useStore(store);
  const { columns, layout, timeFormats } = recognised;
  const time = columns.find(({ part }) => part === 'time');
  switch (question.about) {
    case 'dayOrMonth':
      return (
        <Choices
          name="Which number is the day"
          options={timeFormats.map((value) => ({ value, label: labelOf(time, value) }))}
          onChoose={(timeFormat) => actions.correctLayout({ timeFormat })}
        />
      );
    case 'century':
      return (
        <Choices
          name="Which century"
          options={CENTURIES.map((value) => ({ value, label: CENTURY_WORDS[value] }))}
          onChoose={(century) => actions.correctLayout({ century })}
        />
      );
    case 'time':
      return (
        <>
          <ColumnButtons columns={columns} verb="Time" onColumn={onColumn} />
          <MomentField
            label="One time for all rows"
            value={layout.fixedTime}
            zone={zone}
            onChange={(fixedTime) => actions.correctLayout({ fixedTime: fixedTime ?? undefined })}
          />
          {file && (
            <Button
              variant="quiet"
              label="Take the time of the file’s last change"
              onPress={() => actions.correctLayout({ fixedTime: file.lastModified })}
            />
          )}
        </>
      );
    case 'values':
      return (
        <>
          <ColumnButtons columns={columns} verb="Value" onColumn={onColumn} />
          <CountIn store={store} label="Count the rows in each" of="count" />
        </>
      );
    case 'names':
      return (
        <>
          <ColumnButtons
            columns={columns.filter(({ part }) => part === 'leftOut')}
            verb="Name"
            onColumn={onColumn}
          />
          <Button
            variant="quiet"
            label={
              layout.nameColumns.length > 0
                ? 'No names: one series for each column'
                : 'All rows belong to one series'
            }
            onPress={() =>
              actions.correctLayout({
                parts: {
                  ...correct.parts,
                  ...Object.fromEntries(layout.nameColumns.map((i) => [i, 'leftOut' as const])),
                },
              })
            }
          />
        </>
      );
    case 'headings':
      return (
        <Choices
          name="Columns without a heading"
          options={[
            { value: '0', label: 'the last columns' },
            ...(layout.width > 1 ? [{ value: 'first', label: 'the first columns' }] : []),
          ]}
          onChoose={(which) =>
            actions.correctLayout({
              headingOffset:
                which === '0' ? 0 : layout.headings.filter((each) => /^Column \d+$/.test(each)).length,
            })
          }
        />
      );
    case 'collisions':
      return (
        <>
          <Choices
            name="Which value to keep when values collide"
            options={COLLISION_RULES.map((value) => ({ value, label: COLLISION_RULE_WORDS[value] }))}
            onChoose={(collisions) => actions.correctLayout({ collisions })}
          />
          <ColumnButtons
            columns={columns.filter(({ part }) => part === 'leftOut')}
            verb="Name"
            onColumn={onColumn}
          />
          <CountIn store={store} label="Count the rows in each" of="count" />
          <CountIn store={store} label="Add the values up in each" of="sum" />
        </>
      );
    default:
      return null;
  }
}

/** Buttons that open single columns, those without a part first. */
function ColumnButtons({
  columns,
  verb,
  onColumn,
}: {
  readonly columns: readonly FoundColumn[];
  readonly verb: string;
  readonly onColumn: (column: number) => void;
}) {
  const MOST = 8;
  const filled = columns.filter(({ numbers, words }) => numbers + words > 0).slice(0, MOST);
  if (filled.length === 0) return null;
  return (
    <View style={styles.buttons}>
      {filled.map(({ index, heading }) => (
        <Button
          key={index}
          variant="quiet"
          label={`${verb}: ${heading}`}
          name={`Choose what column ${heading} is for`}
          onPress={() => onColumn(index)}
        />
      ))}
    </View>
  );
}

function CountIn({
  store,
  label,
  of,
}: {
  readonly store: Store;
  readonly label: string;
  readonly of: 'count' | 'sum';
}) {
  const { actions, correct } = useStore(store);
  const palette = usePalette();
  return (
    <View>
      <Words as="second" colour={palette.ink2}>
        {label}
      </Words>
      <WordRow
        name={label}
        options={EVENT_PERIODS.map((value) => ({ value, label: value }))}
        chosen={correct.events?.of === of ? correct.events.per : null}
        onChoose={(per) => actions.correctLayout({ events: { per, of } })}
      />
    </View>
  );
}

/** How the first cell of a column would be read under a format: an answer a person can judge. */
function labelOf(column: FoundColumn | undefined, format: TimeFormat): string {
  const words = { 'day-first': 'day first', 'month-first': 'month first', iso: 'year first' }[
    format as string
  ];
  const read = column && timeEffect(column.example, format);
  return read
    ? `${words ?? TIME_FORMAT_WORDS[format]}: ${column.example} is ${read}`
    : TIME_FORMAT_WORDS[format];
}

/** Answers below one another, each a button of its own: none is out of sight on a phone. */
function Choices<T extends string>({
  name,
  options,
  onChoose,
}: {
  readonly name: string;
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly onChoose: (value: T) => void;
}) {
  return (
    <View role="group" aria-label={name} style={styles.buttons}>
      {options.map(({ value, label }) => (
        <Button key={value} variant="quiet" label={label} onPress={() => onChoose(value)} />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { borderWidth: 1.5, borderRadius: 10, padding: 12, gap: 14, marginVertical: 8 },
  question: { gap: 6 },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
