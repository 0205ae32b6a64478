import { Refusal } from '../../components/Refusal';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatLength, type JobEntry } from '@vivid-beacon/core';
import { useAssetsById } from '../../api/catalogue';
import { useJobs, useStatusKinds } from '../../api/data';
import { useAddStatus } from '../../api/dataChanges';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { StatusKinds } from './StatusKinds';
import { siteMoment } from '../siteMoment';

const WINDOWS = [
  { value: '7', label: '7 days' },
  { value: '30', label: '30 days' },
  { value: '365', label: 'a year' },
] as const;

interface JobLogProps {
  readonly mayEdit: boolean;
  readonly mayBuild: boolean;
}

/** Jobs: open ones first, with the time that counts: our own statuses in working hours. */
export function JobLog({ mayEdit, mayBuild }: JobLogProps) {
  const palette = usePalette();
  const now = useNow();
  const [days, setDays] = useState<(typeof WINDOWS)[number]['value']>('30');
  const [shown, setShown] = useState<string | null>(null);
  const [meanings, setMeanings] = useState(false);
  const jobs = useJobs(Number(days));
  const job = jobs.data?.find(({ id }) => id === shown) ?? null;
  const desks = [...new Set((jobs.data ?? []).map(({ assetId }) => assetId))];
  const { byId: names } = useAssetsById(meanings ? desks : []);
  return (
    <>
      <WordRow name="Window" options={WINDOWS} chosen={days} onChoose={setDays} />
      {mayBuild && desks.length > 0 && (
        <View style={styles.start}>
          <Button variant="quiet" label="What the statuses mean" onPress={() => setMeanings(true)} />
        </View>
      )}
      <QueryResult query={jobs} reading="Loading jobs">
        {(rows) => {
          const sorted = [...rows].sort(
            (a, b) => Number(b.open) - Number(a.open) || b.workingMs - a.workingMs,
          );
          return (
            <Section
              title="Jobs"
              aside={`${rows.filter(({ open }) => open).length} open of ${rows.length}`}
              closed={false}
            >
              {sorted.slice(0, 200).map((each, i) => {
                const last = each.history[each.history.length - 1];
                return (
                  <Row
                    key={each.id}
                    title={`${each.number}${each.category ? `, ${each.category}` : ''}`}
                    second={`${[each.customer, each.owner, each.assetName].filter(Boolean).join(' · ')} · ${last.status} since ${siteMoment(last.at, each.zone, now)}`}
                    right={
                      <View style={styles.time}>
                        <Words as="bodyStrong" colour={each.open ? palette.ink : palette.ink2}>
                          {formatLength(each.workingMs)}
                        </Words>
                        <Words as="caption" colour={palette.ink2}>
                          {each.open ? 'so far' : 'in all'}
                        </Words>
                      </View>
                    }
                    onPress={() => setShown(each.id)}
                    last={i === sorted.length - 1}
                  />
                );
              })}
              {rows.length === 0 && (
                <Words as="body" colour={palette.ink2}>
                  No job in this window.
                </Words>
              )}
            </Section>
          );
        }}
      </QueryResult>
      <Tray title={job ? `Job ${job.number}` : 'Job'} open={job !== null} onClose={() => setShown(null)}>
        {job && <JobHistory job={job} mayEdit={mayEdit} />}
      </Tray>
      <Tray title="What the statuses mean" open={meanings} onClose={() => setMeanings(false)}>
        {desks.map((id) => (
          <StatusKinds
            key={id}
            assetId={id}
            name={names.get(id)?.name ?? ''}
            used={[
              ...new Set(
                (jobs.data ?? [])
                  .filter(({ assetId }) => assetId === id)
                  .flatMap(({ history }) => history.map(({ status }) => status)),
              ),
            ]}
          />
        ))}
      </Tray>
    </>
  );
}

function JobHistory({ job, mayEdit }: { readonly job: JobEntry; readonly mayEdit: boolean }) {
  const palette = usePalette();
  const now = useNow();
  const kinds = useStatusKinds(job.assetId);
  const add = useAddStatus();
  const [status, setStatus] = useState('');
  const stops = (each: string): boolean =>
    kinds.data?.some((kind) => kind.status === each && kind.stopsClock) ?? false;
  return (
    <>
      <Words as="body" colour={palette.ink2}>
        {`${formatLength(job.workingMs)} in working hours and our own statuses, of ${formatLength(job.elapsedMs)} on the calendar`}
      </Words>
      {job.history.map(({ at, status: each, by }, i) => {
        const until = job.history[i + 1]?.at ?? (job.open ? now : at);
        return (
          <Row
            key={at}
            title={stops(each) ? `${each} (the clock is paused)` : each}
            second={`${siteMoment(at, job.zone, now)}, ${by}${until > at ? `, ${formatLength(until - at)}` : ''}`}
            last={i === job.history.length - 1}
          />
        );
      })}
      {mayEdit && (
        <>
          {(kinds.data ?? []).length > 0 && (
            <WordRow
              name="New status"
              options={kinds.data!.map(({ status: value }) => ({ value, label: value }))}
              chosen={status}
              onChoose={setStatus}
            />
          )}
          <Field label="New status of the job" value={status} onChange={setStatus} />
          <Refusal of={add} />
          <Button
            variant="primary"
            label="Set status from now"
            disabled={add.isPending || status.trim() === ''}
            onPress={() => add.mutate({ id: job.id, at: Date.now(), status })}
          />
        </>
      )}
    </>
  );
}

const styles = StyleSheet.create({
  start: { alignItems: 'flex-start', paddingVertical: 4 },
  time: { alignItems: 'flex-end' },
});
