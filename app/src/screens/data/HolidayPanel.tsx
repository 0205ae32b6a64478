import { useRef, useState } from 'react';
import { DateTime } from 'luxon';
import { StyleSheet, View } from 'react-native';
import { writtenDate, type Holiday } from '@vivid-beacon/core';
import { readHolidays, useCountries, useRegions } from '../../api/data';
import { readIcalendar } from '../../api/dataChanges';
import { Button } from '../../components/Button';
import { DeviceField } from '../../components/DeviceField';
import { IconButton } from '../../components/IconButton';
import { RemoveIcon } from '../../components/icons';
import { PickList } from '../../components/PickList';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';

const YEARS_AHEAD = 2;
const SHOWN_FIRST = 8;

interface HolidayPanelProps {
  readonly plantId: string;
  readonly holidays: readonly Holiday[];
  readonly mayEdit: boolean;
  readonly onChange: (holidays: readonly Holiday[]) => void;
}

/** Days off: public holidays of a country, days of an iCalendar file, or typed in. */
export function HolidayPanel({ plantId, holidays, mayEdit, onChange }: HolidayPanelProps) {
  const palette = usePalette();
  const now = useNow();
  const [picking, setPicking] = useState(false);
  const [all, setAll] = useState(false);
  const [date, setDate] = useState('');
  const [error, setError] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const today = DateTime.fromMillis(now).toISODate()!;
  const coming = holidays.filter((each) => each.date >= today);
  const shown = all ? holidays : coming.slice(0, SHOWN_FIRST);
  const add = (days: readonly Holiday[]): void => {
    const byDate = new Map(holidays.map((each) => [each.date, each]));
    for (const each of days) byDate.set(each.date, each);
    onChange([...byDate.values()].sort((a, b) => a.date.localeCompare(b.date)));
    setError(null);
  };
  return (
    <Section title="Holidays" aside={`${coming.length} to come, ${holidays.length} in all`}>
      {shown.map(({ date: day, name }, i) => (
        <Row
          key={day}
          title={writtenDate(DateTime.fromISO(day, { locale: 'en-GB' }), 'dayOfYear')}
          second={name}
          right={
            mayEdit ? (
              <IconButton
                icon={RemoveIcon}
                name={`Work on ${day}`}
                onPress={() => onChange(holidays.filter((each) => each.date !== day))}
              />
            ) : undefined
          }
          last={i === shown.length - 1}
        />
      ))}
      {holidays.length > shown.length && (
        <View style={styles.start}>
          <Button variant="quiet" label={`Show all ${holidays.length}`} onPress={() => setAll(true)} />
        </View>
      )}
      {error && (
        <Words as="body" colour={palette.breachT}>
          {error}
        </Words>
      )}
      {mayEdit && (
        <View style={styles.row}>
          <Button variant="quiet" label="Public holidays" onPress={() => setPicking(true)} />
          <Button variant="quiet" label="From a calendar file" onPress={() => input.current?.click()} />
          <input
            ref={input}
            type="file"
            accept=".ics,text/calendar"
            aria-label="Calendar file"
            style={{ display: 'none' }}
            onChange={async (event) => {
              const file = event.currentTarget.files?.[0];
              if (!file) return;
              try {
                add(await readIcalendar(plantId, await file.text()));
              } catch (failure) {
                setError((failure as Error).message);
              }
            }}
          />
          <View style={styles.date}>
            <DeviceField type="date" label="A day off" value={date} onChange={setDate} minWidth={150} />
          </View>
          <Button
            variant="quiet"
            label="Add the day"
            disabled={!DateTime.fromISO(date).isValid || date.length !== 10}
            onPress={() => {
              add([{ date, name: 'Day off' }]);
              setDate('');
            }}
          />
        </View>
      )}
      <Tray title="Public holidays" open={picking} onClose={() => setPicking(false)}>
        <CountryPicker
          year={DateTime.fromMillis(now).year}
          onPick={(days) => {
            add(days);
            setPicking(false);
          }}
        />
      </Tray>
    </Section>
  );
}

function CountryPicker({
  year,
  onPick,
}: {
  readonly year: number;
  readonly onPick: (days: readonly Holiday[]) => void;
}) {
  const palette = usePalette();
  const countries = useCountries();
  const [country, setCountry] = useState<string | null>(null);
  const [region, setRegion] = useState<string | null>(null);
  const regions = useRegions(country);
  const [error, setError] = useState<string | null>(null);
  return (
    <>
      <PickList
        name="Country"
        maxHeight={240}
        options={(countries.data ?? []).map(({ code, name }) => ({ value: code, label: name, detail: code }))}
        chosen={country}
        onChoose={(code) => {
          setCountry(code);
          setRegion(null);
        }}
      />
      {(regions.data ?? []).length > 0 && (
        <PickList
          name="Region"
          maxHeight={180}
          options={regions.data!.map(({ code, name }) => ({ value: code, label: name, detail: code }))}
          chosen={region}
          onChoose={setRegion}
        />
      )}
      {error && (
        <Words as="body" colour={palette.breachT}>
          {error}
        </Words>
      )}
      <Button
        variant="primary"
        label={`Take holidays of ${year - 1} to ${year + YEARS_AHEAD}`}
        disabled={country === null}
        onPress={() =>
          void readHolidays(country!, region, year - 1, year + YEARS_AHEAD)
            .then(onPick)
            .catch((failure: Error) => setError(failure.message))
        }
      />
    </>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 6, alignItems: 'flex-end' },
  start: { alignItems: 'flex-start', paddingVertical: 4 },
  date: { width: 150 },
});
