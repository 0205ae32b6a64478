import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import {
  CUT_WORDS,
  STAMP_WORDS,
  decimalsFor,
  formatLength,
  formatValue,
  periodOfMetric,
  resolveWindow,
  scaleEnds,
  SUMMARIES_OF_KIND,
  type Metric,
  type WindowSpec,
} from '@vivid-beacon/core';
import { useCoverage, useRemarks } from '../../api/data';
import { useRemoveMetric } from '../../api/dataChanges';
import { useRestoreMetric } from '../../api/removedMetrics';
import { useMetricsById } from '../../api/catalogue';
import { useTrend } from '../../api/queries';
import { usePerson } from '../../api/session';
import { LazyTrend } from '../LazyTrend';
import { RemoveThing } from '../../components/RemoveThing';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { Page } from '../../components/Page';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { useWidth } from '../../hooks/useWidth';
import { usePalette } from '../../theme/useTheme';
import { mayAct, mayBuild } from '../../api/mayAct';
import { CoverageStrip } from './CoverageStrip';
import { DegreeDaysPanel } from './DegreeDaysPanel';
import { DerivedSummary } from './DerivedSummary';
import { ExportButtons } from './ExportButtons';
import { feedSentence } from './feedWords';
import { MetricForm } from './MetricForm';
import { ReferenceTable } from './ReferenceTable';
import { RemarkForm } from './RemarkForm';
import { RemarkList } from './RemarkList';
import { SampleTable } from './SampleTable';
import { siteMoment } from '../siteMoment';

const WINDOWS = [
  { value: 'day', label: '24 h' },
  { value: 'week', label: '7 days' },
  { value: 'month', label: '30 days' },
  { value: 'quarter', label: '90 days' },
  { value: 'year', label: 'a year' },
] as const;
type WindowName = (typeof WINDOWS)[number]['value'];
const SPEC: Readonly<Record<WindowName, WindowSpec>> = {
  day: { kind: 'rolling', count: 24, unit: 'hour' },
  week: { kind: 'rolling', count: 7, unit: 'day' },
  month: { kind: 'rolling', count: 30, unit: 'day' },
  quarter: { kind: 'rolling', count: 90, unit: 'day' },
  year: { kind: 'rolling', count: 1, unit: 'year' },
};
/** A window ends at a whole minute, so that looking at it does not ask again every second. */
const STEADY_MS = 60_000;
const COVERAGE_DAYS = 90;

/** One metric: its course, raw samples, coverage, remarks, and what it is. */
export function MetricScreen({ metricId }: { readonly metricId: string }) {
  const router = useRouter();
  const { byId, whole, error, again } = useMetricsById([metricId]);
  const metric = byId.get(metricId);
  return (
    <Page
      title={metric?.name ?? 'Metric'}
      under={metric ? `${metric.assetName}, ${metric.plantName}` : undefined}
      onBack={() => router.navigate(metric ? `/data/assets/${metric.assetId}` : '/data')}
      backName="Back to the asset"
      full
    >
      <QueryResult
        query={{ data: whole ? byId : undefined, error, refetch: again }}
        reading="Loading the metric"
      >
        {() =>
          metric ? <MetricDetail metric={metric} /> : <Words as="body">This metric no longer exists.</Words>
        }
      </QueryResult>
    </Page>
  );
}

function MetricDetail({ metric }: { readonly metric: Metric }) {
  const palette = usePalette();
  const router = useRouter();
  const person = usePerson();
  const remove = useRemoveMetric();
  const restore = useRestoreMetric();
  const [width, onLayout] = useWidth();
  const now = Math.floor(useNow() / STEADY_MS) * STEADY_MS;
  const [windowName, setWindow] = useState<WindowName>(metric.origin === 'reference' ? 'year' : 'week');
  const [open, setOpen] = useState<'edit' | 'remark' | null>(null);
  const sampled = metric.origin === 'samples';
  const spec = SPEC[windowName];
  const window = resolveWindow(spec, now, metric.zone);
  const summary = SUMMARIES_OF_KIND[metric.kind][0];
  const trend = useTrend(
    width > 0
      ? {
          measure: {
            metricId: metric.id,
            summary: metric.origin === 'derived' ? 'mean' : summary,
            per: null,
          },
          window: spec,
          bucket: periodOfMetric(metric, window.end - window.start),
          columns: Math.max(10, Math.round(width - 64)),
        }
      : null,
  );
  const coverage = useCoverage(metric.id, COVERAGE_DAYS, sampled);
  const remarks = useRemarks(metric.assetId, window.start, window.end);
  const build = mayBuild(person, metric.plantId);
  return (
    <View onLayout={onLayout}>
      <View style={styles.facts}>
        <Words as="body" colour={palette.ink2}>
          {[
            metric.kind,
            metric.unit && `in ${metric.unit}`,
            sampled && `every ${formatLength(metric.intervalMs)}`,
            sampled && `trusted for ${formatLength(metric.maxGapMs)}`,
            metric.kind === 'amount' && metric.stamped === 'end' && `times stand for ${STAMP_WORDS.end}`,
            metric.kind === 'amount' && metric.cut === 'share' && `counts ${CUT_WORDS.share}`,
            feedSentence(metric),
          ]
            .filter(Boolean)
            .join(', ')}
        </Words>
        {sampled && metric.last && (
          <Words as="bodyStrong">
            {`${formatValue(metric.last.v, metric.unit, metric.decimals)}, ${siteMoment(metric.last.t, metric.zone, now)}`}
          </Words>
        )}
        {sampled && (
          <Words as="caption" colour={palette.ink3}>
            {metric.key}
          </Words>
        )}
      </View>
      {metric.origin === 'derived' && <DerivedSummary metric={metric} />}
      <View style={styles.tools}>
        {build && metric.origin !== 'derived' && sampled && (
          <Button variant="quiet" label="Edit metric" onPress={() => setOpen('edit')} />
        )}
        {build && metric.origin === 'derived' && (
          <Button
            variant="quiet"
            label="Edit expression"
            onPress={() => router.push(`/data/derived/${metric.id}`)}
          />
        )}
        {mayAct(person, metric.plantId) && (
          <Button variant="quiet" label="Add a remark" onPress={() => setOpen('remark')} />
        )}
        {build && (
          <RemoveThing
            what="metric"
            id={metric.id}
            name={`${metric.name}, ${metric.assetName}`}
            words={`${metric.name} of ${metric.assetName} leaves every list. Its data are kept: it can be restored under Data, Removed.`}
            removal={remove}
            undo={() => restore.mutateAsync(metric.id)}
            onGone={() => router.navigate(`/data/assets/${metric.assetId}`)}
          />
        )}
      </View>
      <WordRow name="Window" options={WINDOWS} chosen={windowName} onChoose={setWindow} />
      <QueryResult query={trend} reading="Loading the course">
        {(answer) => (
          <View style={trend.isPlaceholderData && styles.old}>
            <LazyTrend
              width={width}
              height={240}
              answer={answer}
              band={null}
              decimals={Math.min(
                4,
                decimalsFor(
                  ...scaleEnds(
                    null,
                    answer.v.filter((x) => x !== null),
                  ),
                ),
              )}
              name={metric.name}
              caption={answer.unit ? `in ${answer.unit}` : ' '}
              remarks={remarks.data}
            />
          </View>
        )}
      </QueryResult>
      {metric.origin === 'reference' && <ReferenceTable metric={metric} mayEdit={build} />}
      {sampled && (
        <Section title="Coverage by day" aside={`the last ${COVERAGE_DAYS} days`}>
          <QueryResult query={coverage} reading="Loading coverage">
            {(answer) => <CoverageStrip coverage={answer} width={width} />}
          </QueryResult>
        </Section>
      )}
      <Section title="Remarks" aside={String(remarks.data?.length ?? 0)}>
        <RemarkList
          remarks={remarks.data ?? []}
          zone={metric.zone}
          mayRemove={mayAct(person, metric.plantId)}
        />
      </Section>
      {metric.kind === 'level' && /^(°C|°F|K|℃)$/.test(metric.unit) && (
        <DegreeDays metric={metric} window={spec} />
      )}
      {sampled && (
        <Section title="Samples" aside="in the window above" closed={false}>
          <ExportButtons metric={metric} window={window} />
          <SampleTable metric={metric} window={window} />
        </Section>
      )}
      <Tray title={`Edit ${metric.name}`} open={open === 'edit'} onClose={() => setOpen(null)}>
        <MetricForm metric={metric} assetId={metric.assetId} onDone={() => setOpen(null)} />
      </Tray>
      <Tray title={`Remark on ${metric.assetName}`} open={open === 'remark'} onClose={() => setOpen(null)}>
        <RemarkForm assetId={metric.assetId} zone={metric.zone} now={now} onDone={() => setOpen(null)} />
      </Tray>
    </View>
  );
}

/** Degree days are of use for outside temperatures: shown when asked for. */
function DegreeDays({ metric, window }: { readonly metric: Metric; readonly window: WindowSpec }) {
  const [open, setOpen] = useState(
    /outside|outdoor|weather|ambient/i.test(`${metric.name} ${metric.assetName}`),
  );
  if (open) return <DegreeDaysPanel metric={metric} window={window} />;
  return (
    <View style={styles.tools}>
      <Button variant="quiet" label="Calculate degree days" onPress={() => setOpen(true)} />
    </View>
  );
}

const styles = StyleSheet.create({
  facts: { gap: 2, paddingBottom: 6 },
  tools: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 6 },
  old: { opacity: 0.6 },
});
