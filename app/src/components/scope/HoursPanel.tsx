import { DAYS } from '../days';
import { StyleSheet, View } from 'react-native';
import { hoursWords, type HoursFilter, weekdays } from '@vivid-beacon/core';
import { hoursList, hoursOfList, NEW_PARTS, type HoursPart } from '../../boards/hoursParts';
import { usePalette } from '../../theme/useTheme';
import { Button } from '../Button';
import { ClockField } from '../ClockField';
import { IconButton } from '../IconButton';
import { CloseIcon } from '../icons';
import { ToggleRow } from '../ToggleRow';
import { WordRow } from '../WordRow';
import { Words } from '../Words';

interface HoursPanelProps {
  readonly hours: HoursFilter | null;
  readonly onChange: (hours: HoursFilter | null) => void;
}

const dayOptions = () => weekdays().map((value) => ({ value, label: DAYS[value - 1] }));
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'].map(
  (label, i) => ({
    value: i + 1,
    label,
  }),
);
const KINDS: readonly { readonly value: HoursPart['kind']; readonly label: string }[] = [
  { value: 'clock', label: 'between times of day' },
  { value: 'weekdays', label: 'on weekdays' },
  { value: 'months', label: 'in months' },
  { value: 'working', label: 'working hours' },
];

/** Recurring hours: conditions on time of day, weekday, month and working hours, joined by all or any. */
export function HoursPanel({ hours, onChange }: HoursPanelProps) {
  const palette = usePalette();
  const list = hoursList(hours);
  if (!list) {
    return (
      <>
        <Words as="body">{`Now: ${hoursWords(hours!)}`}</Words>
        <Words as="second" colour={palette.ink2}>
          These hours are built in a way that cannot be changed here, only replaced.
        </Words>
        <Button label="All hours" onPress={() => onChange(null)} />
      </>
    );
  }
  const set = (parts: readonly HoursPart[], join = list.join): void => onChange(hoursOfList({ join, parts }));
  const change = (i: number, part: HoursPart): void =>
    set(list.parts.map((each, k) => (k === i ? part : each)));
  return (
    <>
      <Words as="body">{hours ? `Only ${hoursWords(hours)}` : 'All hours'}</Words>
      {list.parts.length > 1 && (
        <WordRow
          name="How conditions are joined"
          options={[
            { value: 'all', label: 'all must hold' },
            { value: 'any', label: 'any may hold' },
          ]}
          chosen={list.join}
          onChoose={(join) => set(list.parts, join)}
        />
      )}
      {list.parts.map((part, i) => (
        <View key={i} style={[styles.part, { borderColor: palette.line }]}>
          <View style={styles.fields}>
            <PartFields part={part} onChange={(next) => change(i, next)} />
          </View>
          <IconButton
            icon={CloseIcon}
            name="Remove this condition"
            onPress={() => set(list.parts.filter((_, k) => k !== i))}
          />
        </View>
      ))}
      <Words as="second" colour={palette.ink2}>
        Add a condition
      </Words>
      <WordRow
        name="Add a condition"
        options={KINDS}
        chosen={null}
        onChoose={(kind) => set([...list.parts, NEW_PARTS[kind]])}
      />
    </>
  );
}

function PartFields({
  part,
  onChange,
}: {
  readonly part: HoursPart;
  readonly onChange: (part: HoursPart) => void;
}) {
  switch (part.kind) {
    case 'clock':
      return (
        <View style={styles.pair}>
          <ClockField label="From" value={part.from} onChange={(from) => onChange({ ...part, from })} />
          <ClockField label="To" value={part.to} onChange={(to) => onChange({ ...part, to })} />
        </View>
      );
    case 'weekdays':
      return (
        <ToggleRow
          name="Weekdays"
          options={dayOptions()}
          chosen={[...part.days]}
          onChange={(days) => days.length > 0 && onChange({ ...part, days: days.sort((a, b) => a - b) })}
        />
      );
    case 'months':
      return (
        <ToggleRow
          name="Months"
          options={MONTHS}
          chosen={[...part.months]}
          onChange={(months) =>
            months.length > 0 && onChange({ ...part, months: months.sort((a, b) => a - b) })
          }
        />
      );
    case 'working':
      return (
        <WordRow
          name="Working hours"
          options={[
            { value: 'inside', label: 'inside working hours' },
            { value: 'outside', label: 'outside working hours' },
          ]}
          chosen={part.inside ? 'inside' : 'outside'}
          onChoose={(side) => onChange({ ...part, inside: side === 'inside' })}
        />
      );
  }
}

const styles = StyleSheet.create({
  part: { flexDirection: 'row', alignItems: 'center', gap: 8, borderBottomWidth: 1, paddingBottom: 8 },
  fields: { flex: 1, minWidth: 0 },
  pair: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
});
