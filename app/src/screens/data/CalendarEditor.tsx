import { DAYS } from '../../components/days';
import { Refusal } from '../../components/Refusal';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  formatLength,
  minutesOf,
  sameMeaning,
  workingTime,
  lengthOf,
  type Asset,
  type Shift,
  type WorkingCalendar,
  weekdays,
  storedClockText,
} from '@vivid-beacon/core';
import { useSaveCalendar } from '../../api/dataChanges';
import { Button } from '../../components/Button';
import { Fact } from '../../components/Fact';
import { Field } from '../../components/Field';
import { Section } from '../../components/Section';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { HolidayPanel } from './HolidayPanel';
import { ShiftWeek } from './ShiftWeek';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const WEEK_MS = 7 * 86_400_000;

interface CalendarEditorProps {
  readonly plant: Asset;
  readonly calendar: WorkingCalendar;
  readonly mayEdit: boolean;
}

/** Shifts, holidays, first weekday and financial year of a plant, with the week they make. */
export function CalendarEditor({ plant, calendar, mayEdit }: CalendarEditorProps) {
  const palette = usePalette();
  const now = useNow();
  const save = useSaveCalendar();
  const [draft, setDraft] = useState(calendar);
  const changed = !sameMeaning(draft, calendar);
  const valid = draft.shifts.every(({ from, to }) => isClock(from) && isClock(to));
  const setShift = (i: number, part: Partial<Shift>): void =>
    setDraft({ ...draft, shifts: draft.shifts.map((shift, k) => (k === i ? { ...shift, ...part } : shift)) });
  const week = valid ? lengthOf(workingTime(draft, { start: now - WEEK_MS, end: now }, plant.zone)) : null;
  return (
    <>
      <Section
        title="Shifts"
        aside={week === null ? '' : `${formatLength(week)} worked in the last 7 days, time of ${plant.zone}`}
      >
        {valid && <ShiftWeek shifts={draft.shifts} />}
        {draft.shifts.map((shift, i) =>
          !mayEdit ? (
            <Fact key={i} name={shift.name} text={shiftWords(shift)} />
          ) : (
            <View key={i} style={styles.shift}>
              <View style={styles.times}>
                <Field label="Shift" value={shift.name} onChange={(name) => setShift(i, { name })} />
                <Field
                  label="From"
                  value={shift.from}
                  onChange={(from) => setShift(i, { from })}
                  error={isClock(shift.from) ? undefined : 'such as 06:00'}
                />
                <Field
                  label="To"
                  value={shift.to}
                  onChange={(to) => setShift(i, { to })}
                  error={isClock(shift.to) ? undefined : 'such as 14:00'}
                />
              </View>
              <View style={styles.days} role="group" aria-label={`Days of shift ${shift.name}`}>
                {weekdays().map((day) => {
                  const label = DAYS[day - 1];
                  const on = shift.days.includes(day);
                  return (
                    <Button
                      key={label}
                      variant={on ? 'primary' : 'quiet'}
                      label={label}
                      name={`${label}, ${on ? 'worked' : 'off'}`}
                      onPress={() =>
                        setShift(i, {
                          days: on
                            ? shift.days.filter((each) => each !== day)
                            : [...shift.days, day].sort((a, b) => a - b),
                        })
                      }
                    />
                  );
                })}
                <Button
                  variant="quiet"
                  label="Remove"
                  name={`Remove shift ${shift.name}`}
                  onPress={() => setDraft({ ...draft, shifts: draft.shifts.filter((_, k) => k !== i) })}
                />
              </View>
            </View>
          ),
        )}
        {draft.shifts.length === 0 && (
          <Words as="body" colour={palette.ink2}>
            No shifts: the plant counts as working around the clock, except on holidays.
          </Words>
        )}
        {mayEdit && (
          <View style={styles.start}>
            <Button
              variant="quiet"
              label="Add a shift"
              onPress={() =>
                setDraft({
                  ...draft,
                  shifts: [
                    ...draft.shifts,
                    {
                      name: `Shift ${draft.shifts.length + 1}`,
                      days: [1, 2, 3, 4, 5],
                      from: '06:00',
                      to: '14:00',
                    },
                  ],
                })
              }
            />
          </View>
        )}
      </Section>
      <HolidayPanel
        plantId={plant.id}
        holidays={draft.holidays}
        mayEdit={mayEdit}
        onChange={(holidays) => setDraft({ ...draft, holidays })}
      />
      <Section title="Weeks and years" closed={false}>
        {mayEdit ? (
          <>
            <Words as="second" colour={palette.ink2}>
              A week begins on
            </Words>
            <WordRow
              name="First weekday"
              options={DAYS.map((label, i) => ({ value: String(i + 1), label }))}
              chosen={String(draft.firstWeekday)}
              onChoose={(day) => setDraft({ ...draft, firstWeekday: Number(day) })}
            />
            <Words as="second" colour={palette.ink2}>
              The financial year begins in
            </Words>
            <WordRow
              name="First month of the financial year"
              options={MONTHS.map((label, i) => ({ value: String(i + 1), label }))}
              chosen={String(draft.financialYearMonth)}
              onChoose={(month) => setDraft({ ...draft, financialYearMonth: Number(month) })}
            />
          </>
        ) : (
          <>
            <Fact name="A week begins on" text={DAYS[draft.firstWeekday - 1]} />
            <Fact name="The financial year begins in" text={MONTHS[draft.financialYearMonth - 1]} />
          </>
        )}
      </Section>
      <Refusal of={save} />
      {mayEdit && (
        <View style={styles.foot}>
          <Button
            variant="primary"
            label={save.isPending ? 'Saving' : changed ? 'Save calendar' : 'Saved'}
            disabled={!changed || !valid || save.isPending}
            onPress={() => save.mutate({ plantId: plant.id, calendar: draft })}
          />
        </View>
      )}
    </>
  );
}

/** "06:00 to 14:00, Mon, Tue, Wed". */
const shiftWords = ({ from, to, days }: Shift): string =>
  `${storedClockText(from)} to ${storedClockText(to)}, ${days.map((day) => DAYS[day - 1]).join(', ')}`;

function isClock(text: string): boolean {
  try {
    minutesOf(text);
    return true;
  } catch {
    return false;
  }
}

const styles = StyleSheet.create({
  shift: { paddingVertical: 6, gap: 6 },
  times: { flexDirection: 'row', gap: 10 },
  days: { flexDirection: 'row', flexWrap: 'wrap', gap: 6 },
  start: { alignItems: 'flex-start', paddingVertical: 6 },
  foot: { paddingVertical: 14, alignItems: 'flex-start' },
});
