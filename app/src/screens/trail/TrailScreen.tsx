import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatNumber } from '@vivid-beacon/core';
import { TRAIL_DAYS } from '@vivid-beacon/core/src/api/trail';
import {
  trailExport,
  useCheckTrail,
  useKeepTrail,
  useTrailPages,
  useTrailSetting,
  useTrailSubjects,
} from '../../api/trail';
import { Button } from '../../components/Button';
import { Page } from '../../components/Page';
import { PickList } from '../../components/PickList';
import { QueryResult } from '../../components/QueryResult';
import { Refusal } from '../../components/Refusal';
import { RemovalTray } from '../../components/RemovalTray';
import { SearchField, useSearch } from '../../components/SearchField';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { TrailList } from './TrailList';
import { kindWords } from './trailWords';

const ALL = 'all';
const DAYS = [TRAIL_DAYS.least, 365, TRAIL_DAYS.usual, TRAIL_DAYS.most];

/** Who changed what, when and from where. */
export function TrailScreen() {
  const router = useRouter();
  const palette = usePalette();
  const search = useSearch();
  const [subject, setSubject] = useState<string | null>(null);
  const [picking, setPicking] = useState(false);
  const filter = { search: search.settled, subject: subject ?? undefined };
  const pages = useTrailPages(filter);
  const subjects = useTrailSubjects();
  const check = useCheckTrail();
  const total = pages.data?.pages[0].total;
  return (
    <Page
      title="Trail"
      under="Who changed what, when and from where"
      onBack={() => router.navigate('/account')}
      backName="Back to your account"
    >
      <SearchField
        label="Search the trail"
        placeholder="Search by name, person, or what changed"
        search={search}
      />
      <View style={styles.tools}>
        <Button
          label={subject === null ? 'All kinds' : kindWords(subject)}
          name={`Kind: ${subject === null ? 'all' : kindWords(subject)}`}
          onPress={() => setPicking(true)}
        />
        <Button label="Check the chain" disabled={check.isPending} onPress={() => check.mutate(undefined)} />
        <Button label="Export" onPress={() => window.location.assign(trailExport(filter))} />
      </View>
      {check.data && (
        <View role="status">
          <Words as="body" colour={check.data.whole ? palette.ink : palette.breachT}>
            {check.data.whole
              ? `All ${formatNumber(check.data.entries, 0)} entries follow from one another. The newest hash is ${check.data.newest ?? 'none'}; written down elsewhere, it shows later that nothing before it was changed.`
              : `Entry ${check.data.broken} does not follow from the one before: it, or one before it, was changed outside of Vivid Beacon.`}
          </Words>
        </View>
      )}
      <Refusal of={check} />
      <Section title="Entries" aside={total === undefined ? '' : formatNumber(total, 0)}>
        <TrailList pages={pages} searched={search.settled} />
      </Section>
      <KeptFor />
      <Tray title="Kind" open={picking} onClose={() => setPicking(false)}>
        <QueryResult query={subjects} reading="Loading kinds">
          {(rows) => (
            <PickList
              name="Kind"
              maxHeight={360}
              options={[
                { value: ALL, label: 'All kinds' },
                ...rows.map((each) => ({
                  value: each.subject,
                  label: kindWords(each.subject),
                  detail: `${formatNumber(each.entries, 0)} ${each.entries === 1 ? 'entry' : 'entries'}`,
                })),
              ]}
              chosen={subject ?? ALL}
              onChoose={(value) => {
                setSubject(value === ALL ? null : value);
                setPicking(false);
              }}
            />
          )}
        </QueryResult>
      </Tray>
    </Page>
  );
}

/** For how long entries are kept. */
function KeptFor() {
  const palette = usePalette();
  const setting = useTrailSetting();
  const keep = useKeepTrail();
  const [shorter, setShorter] = useState<number | null>(null);
  return (
    <QueryResult query={setting} reading="Loading the setting">
      {({ days }) => (
        <Section title="Kept for" closed={false}>
          <Words as="second" colour={palette.ink2}>
            Older entries are cut off for good. What is left still follows from one another.
          </Words>
          <WordRow
            name="Kept for"
            options={[...new Set([...DAYS, days])]
              .sort((a, b) => a - b)
              .map((each) => ({ value: String(each), label: `${formatNumber(each, 0)} days` }))}
            chosen={String(days)}
            onChoose={(value) => {
              // What is cut off does not come back.
              if (Number(value) < days) setShorter(Number(value));
              else keep.mutate(Number(value));
            }}
          />
          {shorter === null && <Refusal of={keep} />}
          <RemovalTray
            title={`Keep the trail for ${formatNumber(shorter ?? 0, 0)} days`}
            open={shorter !== null}
            words="Entries that are older are cut off within the hour and do not come back. Export them first if you need them."
            effects={[]}
            verb="Cut off older entries"
            pending={keep.isPending}
            error={keep.error?.message ?? null}
            onClose={() => setShorter(null)}
            onRemove={() => {
              if (shorter !== null) keep.mutate(shorter, { onSuccess: () => setShorter(null) });
            }}
          />
        </Section>
      )}
    </QueryResult>
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 },
});
