import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import {
  allows,
  formatDate,
  formatMoment,
  formatNumber,
  nameKey,
  type RemovedMetric,
} from '@vivid-beacon/core';
import { useRemovals, useRestore, type ListedRemoval } from '../../api/removals';
import { useEraseMetric, useRemovedPages, useRestoreMetric } from '../../api/removedMetrics';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { LongList } from '../../components/LongList';
import { Page } from '../../components/Page';
import { Refusal } from '../../components/Refusal';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { SearchField, useSearch } from '../../components/SearchField';
import { Tray } from '../../components/Tray';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { deviceZone } from '../deviceZone';

/** What was removed: it is there until an administrator erases it. */
export function RemovedScreen() {
  const palette = usePalette();
  const router = useRouter();
  const search = useSearch();
  const metrics = useRemovedPages(search.settled);
  const things = useRemovals(search.settled);
  return (
    <Page title="Removed" onBack={() => router.navigate('/data')} backName="Data">
      <Words as="body" colour={palette.ink2}>
        Everything is kept as it was. Restored, it is where it was; rules that were withdrawn with it stay
        withdrawn.
      </Words>
      <SearchField
        label="Search what was removed"
        placeholder="Search by name, asset or plant"
        search={search}
      />
      <Section title="Metrics" aside={String(metrics.data?.pages[0].total ?? '')}>
        <LongList
          pages={metrics}
          reading="Loading removed metrics"
          empty="No metric has been removed."
          searched={search.settled}
        >
          {(metric: RemovedMetric, last) => <RemovedRow key={metric.id} metric={metric} last={last} />}
        </LongList>
      </Section>
      <Section title="Assets, boards and indicators" aside={String(things.data?.pages[0].total ?? '')}>
        <LongList
          pages={things}
          reading="Loading what was removed"
          empty="None has been removed."
          searched={search.settled}
        >
          {(thing: ListedRemoval, last) => <ThingRow key={thing.id} thing={thing} last={last} />}
        </LongList>
      </Section>
    </Page>
  );
}

/** An asset, a board or an indicator that can be restored. */
function ThingRow({ thing, last }: { readonly thing: ListedRemoval; readonly last: boolean }) {
  const restore = useRestore();
  const now = useNow(60_000);
  const { kind, of, name, place, removedAt, taken } = thing;
  return (
    <>
      <Row
        title={name}
        second={[
          kind,
          place === name ? null : place,
          `removed ${formatMoment(removedAt, deviceZone(), now)}`,
          taken,
        ]
          .filter(Boolean)
          .join(' · ')}
        last={last}
        below={
          <View style={styles.tools}>
            <Button
              variant="quiet"
              label="Restore"
              name={`Restore ${kind} ${name}`}
              disabled={taken !== null || restore.isPending}
              onPress={() => restore.mutate({ kind, id: of })}
            />
          </View>
        }
      />
      <Refusal of={restore} />
    </>
  );
}

/** "12,345 samples, 1 Feb 2026 to 19 Nov 2026". */
function dataWords({ samples, firstDay, lastDay }: RemovedMetric): string {
  if (firstDay === null || lastDay === null) return 'no samples';
  const days = [firstDay, lastDay].map((day) => formatDate(day, 'UTC'));
  return `${formatNumber(samples, 0)} ${samples === 1 ? 'sample' : 'samples'}, ${days[0] === days[1] ? days[0] : days.join(' to ')}`;
}

function RemovedRow({ metric, last }: { readonly metric: RemovedMetric; readonly last: boolean }) {
  const person = usePerson();
  const restore = useRestoreMetric();
  const [erasing, setErasing] = useState(false);
  const { name, assetName, plantName, zone, removedAt, taken } = metric;
  return (
    <>
      <Row
        title={`${name}, ${assetName}`}
        second={[
          assetName === plantName ? null : plantName,
          dataWords(metric),
          `removed ${formatDate(removedAt, zone)}`,
          taken,
        ]
          .filter(Boolean)
          .join(' · ')}
        last={last}
        below={
          <View style={styles.tools}>
            <Button
              variant="quiet"
              label="Restore"
              name={`Restore ${name}, ${assetName}`}
              disabled={taken !== null || restore.isPending}
              onPress={() => restore.mutate(metric.id)}
            />
            {person && allows(person.role, 'administrator') && (
              <Button
                variant="quiet"
                label="Erase"
                name={`Erase ${name}, ${assetName}`}
                onPress={() => setErasing(true)}
              />
            )}
          </View>
        }
      />
      <Refusal of={restore} />
      <Tray title="Erase for good" open={erasing} onClose={() => setErasing(false)}>
        {erasing && <EraseForm metric={metric} onDone={() => setErasing(false)} />}
      </Tray>
    </>
  );
}

/** Says what is erased, and asks for the name before it is. */
function EraseForm({ metric, onDone }: { readonly metric: RemovedMetric; readonly onDone: () => void }) {
  const erase = useEraseMetric();
  const [typed, setTyped] = useState('');
  const { id, name, assetName, alarms } = metric;
  const history =
    alarms === 0
      ? ''
      : ` and ${formatNumber(alarms, 0)} ${alarms === 1 ? 'alarm' : 'alarms'} with their history`;
  return (
    <View style={styles.form}>
      <Words as="body">
        {`This erases ${name} of ${assetName}: ${dataWords(metric)}${history}. Boards and flags that name it show nothing for it any more. It cannot be undone.`}
      </Words>
      <Field label={`Type "${name}" to erase it`} value={typed} onChange={setTyped} />
      <Refusal of={erase} />
      <Button label="Keep it" onPress={onDone} />
      <Button
        variant="primary"
        label={erase.isPending ? 'Erasing' : 'Erase for good'}
        disabled={nameKey(typed) !== nameKey(name) || erase.isPending}
        onPress={() => erase.mutate({ id, name: typed }, { onSuccess: onDone })}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 6, justifyContent: 'flex-end', paddingBottom: 10 },
  form: { gap: 10 },
});
