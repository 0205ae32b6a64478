import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useStore } from 'zustand';
import { DAY_MS, formatDate, type Asset, type Metric } from '@vivid-beacon/core';
import { balanceText, type ReportedLine } from '@vivid-beacon/core/src/intakeFiles';
import { useSession } from '../../api/session';
import { useMetricsById } from '../../api/catalogue';
import { Button } from '../../components/Button';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import type { createIntakeStore } from '../../stores/intakeStore';
import {
  assetColumnOf,
  orderOf,
  proposals,
  type ChosenAsset,
  type ColumnPlan,
  type FedByFile,
  type Plans,
} from '../../stores/intakePlans';
import { usePalette } from '../../theme/useTheme';
import type { FileScan } from '../../workers/scanFile';
import { saveText, fileName } from '../saveText';
import { AssetChoice } from './AssetChoice';
import { BalanceAccount } from './BalanceAccount';
import { ColumnList } from './ColumnList';
import { LayoutCheck } from './LayoutCheck';
import { ColumnPartTray } from './ColumnPartTray';
import { ProgressBar } from './ProgressBar';
import { QuestionList } from './QuestionList';
import { RawRows } from './RawRows';
import { SeriesPlanner } from './SeriesPlanner';
import { ReportedLineList } from './ReportedLineList';

interface IntakeCheckProps {
  readonly store: ReturnType<typeof createIntakeStore>;
}

const SHOWN_AT_ONCE = 40;
const KINDS: readonly ReportedLine['kind'][] = ['refused', 'met', 'repeated', 'short', 'leftOut'];

/** Shows how the file was understood and what becomes of every line, lets it be corrected, and asks what each series feeds. */
export function IntakeCheck({ store }: IntakeCheckProps) {
  const palette = usePalette();
  const { look, plans, remembered, actions, looking, progress, zone, file } = useStore(store);
  const token = useSession().data?.csrfToken ?? '';
  const [asset, setAsset] = useState<ChosenAsset>(() => ({
    id: null,
    name: '',
    zone,
    namedBy: look && assetColumnOf(look),
  }));
  const [shown, setShown] = useState(SHOWN_AT_ONCE);
  const [opened, setOpened] = useState<number | null>(null);
  const fedIds = Object.values(plans).map((plan) => (plan.to === 'existing' ? plan.metricId : null));
  const { byId: metrics, whole } = useMetricsById(fedIds);
  if (!look) return null;
  const { recognised, feeds } = look;
  const { layout, columns, questions } = recognised;
  const proposed = proposals(look, asset.namedBy);
  const taken = feeds.filter(({ key }) => plans[key] && plans[key].to !== 'nothing');
  const needsAsset = taken.some(({ key }) => plans[key].to === 'new');

  const chooseAsset = (next: ChosenAsset, ofExisting?: Asset): void => {
    setAsset(next);
    if (next.namedBy !== asset.namedBy)
      renameUntouched(look, plans, asset.namedBy, next.namedBy, actions.plan);
    const ofAsset = ofExisting?.zone ?? (next.id === null ? next.zone : '');
    if (isZone(ofAsset)) actions.setZone(ofAsset);
  };
  const plan = (key: string, next: ColumnPlan, fed?: Metric): void => {
    actions.plan(key, next);
    // Local times of a file that only feeds metrics that are there are those of their site.
    if (fed && taken.every((feed) => feed.key === key || plans[feed.key].to === 'existing'))
      actions.setZone(fed.zone);
  };
  const problem = problemOf({
    questions: questions.length,
    taken: taken.map(({ key }) => plans[key]),
    known: (id) => metrics.get(id)?.origin === 'samples',
    whole,
    needsAsset,
    asset,
  });

  const bringIn = (): void => {
    const now = Date.now();
    const today = Math.floor(now / DAY_MS) * DAY_MS;
    const metricOf = (metricId: string): FedByFile => {
      const { kind, intervalMs, stamped, retentionDays: days } = metrics.get(metricId)!;
      return { kind, intervalMs, stamped, earliest: days === null ? null : today - days * DAY_MS };
    };
    actions.read({ ...orderOf(look, plans, asset, metricOf), formToken: token });
  };

  return (
    <View style={looking && styles.faint}>
      {looking && (
        <View role="status" style={styles.again}>
          <Words as="second" colour={palette.ink2}>
            Scanning the file again
          </Words>
          {progress.share > 0 && (
            <>
              <ProgressBar share={progress.share} name="Scanning the file" />
              <Button variant="quiet" label="Cancel" onPress={actions.stopLooking} />
            </>
          )}
        </View>
      )}
      {remembered && (
        <Remembered
          from={`Read and mapped like ${remembered.fileName}, imported on ${formatDate(remembered.usedAt, zone)}.`}
          look={look}
          plans={plans}
          metrics={metrics}
        />
      )}
      <QuestionList store={store} recognised={recognised} onColumn={setOpened} />
      <Section title="What happens to its lines" aside={look.encoding}>
        <BalanceAccount balance={look.balance} unit={look.counted} before />
        <View style={styles.buttons}>
          <Button
            variant="quiet"
            label="Download the balance"
            onPress={() =>
              saveText(
                `${fileName(file?.name ?? 'file', 'csv').replace(/\.csv$/, '')}-balance.csv`,
                balanceText({ ...partsOfBalance(look), file: file?.name ?? '' }),
                'text/csv',
              )
            }
          />
        </View>
      </Section>
      <Section title="First rows" aside={`${columns.length} ${columns.length === 1 ? 'column' : 'columns'}`}>
        <RawRows
          recognised={recognised}
          ownHeadings={layout.separator === null && look.counted !== 'row'}
          onHeading={(row) => actions.correctLayout({ preambleRows: row, headingRows: 1 })}
          onColumn={setOpened}
        />
      </Section>
      <ColumnList columns={columns} onOpen={setOpened} />
      <LayoutCheck store={store} />
      {KINDS.map((kind) => (
        <ReportedLineList
          key={kind}
          kind={kind}
          lines={look.told}
          total={look.reportedCounts[kind]}
          unit={look.counted}
        />
      ))}
      {feeds.length > 0 && (
        <Section title="Metrics the series feed" aside={`${taken.length} of ${feeds.length} taken`}>
          {feeds.length > 3 && (
            <View style={styles.buttons}>
              <Button
                variant="quiet"
                label="Import all as new metrics"
                onPress={() =>
                  actions.planAll((key) => (plans[key]?.to === 'new' ? plans[key] : proposed[key]))
                }
              />
              <Button
                variant="quiet"
                label="Leave all out"
                onPress={() => actions.planAll(() => ({ to: 'nothing' }))}
              />
            </View>
          )}
          {feeds.slice(0, shown).map((feed) => (
            <SeriesPlanner
              key={feed.key}
              feed={feed}
              plan={plans[feed.key] ?? { to: 'nothing' }}
              proposal={proposed[feed.key]}
              fed={fedBy(plans[feed.key], metrics)}
              onPlan={(next, fed) => plan(feed.key, next, fed)}
            />
          ))}
          {feeds.length > shown && (
            <Button
              variant="quiet"
              label={`Show ${Math.min(SHOWN_AT_ONCE, feeds.length - shown)} more of ${feeds.length - shown}`}
              onPress={() => setShown(shown + SHOWN_AT_ONCE)}
            />
          )}
        </Section>
      )}
      {needsAsset && (
        <Section title="Asset of the new metrics">
          <AssetChoice
            chosen={asset}
            onChoose={chooseAsset}
            nameColumns={layout.nameColumns.map((index, i) => ({
              index,
              heading: layout.headings[index],
              words: [...new Set(feeds.map(({ words }) => words[i]))].filter((word) => word !== ''),
            }))}
          />
        </Section>
      )}
      <View style={styles.foot}>
        {problem && (
          <Words as="body" colour={palette.cautionT}>
            {problem}
          </Words>
        )}
        <Button variant="primary" label="Import" disabled={looking || problem !== null} onPress={bringIn} />
      </View>
      <ColumnPartTray
        column={columns.find(({ index }) => index === opened) ?? null}
        recognised={recognised}
        onChoose={(part) => actions.setPart(opened!, part)}
        onClose={() => setOpened(null)}
      />
    </View>
  );
}

function partsOfBalance({ balance, recognised, told, reportedCounts }: FileScan) {
  return { balance, columns: recognised.columns, lines: told, counts: reportedCounts, before: true };
}

/** Where the series of a remembered shape go, before anything else: nothing is fed without having been in sight. */
function Remembered({
  from,
  look,
  plans,
  metrics,
}: {
  readonly from: string;
  readonly look: FileScan;
  readonly plans: Plans;
  readonly metrics: ReadonlyMap<string, Metric>;
}) {
  const palette = usePalette();
  const MOST = 12;
  const fed = look.feeds.flatMap(({ key, label }) => {
    const metric = fedBy(plans[key], metrics);
    return metric ? [`${label} feeds ${metric.name} of ${metric.assetName}, ${metric.plantName}`] : [];
  });
  return (
    <View role="region" aria-label="Remembered mapping">
      <Words as="bodyStrong">{from}</Words>
      {fed.slice(0, MOST).map((line) => (
        <Words key={line} as="body" colour={palette.ink2}>
          {line}
        </Words>
      ))}
      <Words as="second" colour={palette.ink2}>
        {fed.length > MOST
          ? `And ${fed.length - MOST} more, below. Change what differs.`
          : 'Change below what differs.'}
      </Words>
    </View>
  );
}

/** The metric that is there already and that a series feeds. */
function fedBy(plan: ColumnPlan | undefined, metrics: ReadonlyMap<string, Metric>): Metric | undefined {
  return plan?.to === 'existing' ? metrics.get(plan.metricId) : undefined;
}

function problemOf({
  questions,
  taken,
  known,
  whole,
  needsAsset,
  asset,
}: {
  readonly questions: number;
  readonly taken: readonly ColumnPlan[];
  /** Is there a metric of this id that takes samples? */
  readonly known: (id: string) => boolean;
  /** Whether all metrics that are to be fed have been read. */
  readonly whole: boolean;
  readonly needsAsset: boolean;
  readonly asset: ChosenAsset;
}): string | null {
  if (questions > 0)
    return questions === 1 ? 'One question above is open.' : `${questions} questions above are open.`;
  if (taken.length === 0) return 'Choose at least one series to take.';
  if (!whole) return 'Loading the metrics to feed.';
  if (taken.some((plan) => plan.to === 'existing' && !known(plan.metricId))) {
    return 'Choose the existing metric for every series that feeds an existing one.';
  }
  if (taken.some((plan) => plan.to === 'new' && plan.name.trim() === ''))
    return 'Give every new metric a name.';
  if (needsAsset && asset.id === null && asset.name.trim() === '')
    return 'Choose an asset, or name a new one.';
  if (needsAsset && asset.id === null && !isZone(asset.zone)) return `There is no time zone “${asset.zone}”.`;
  return null;
}

/** Names that nobody has touched follow the choice of what names assets. */
function renameUntouched(
  look: FileScan,
  plans: Plans,
  before: number | null,
  after: number | null,
  plan: (key: string, plan: ColumnPlan) => void,
): void {
  const [was, becomes] = [proposals(look, before), proposals(look, after)];
  for (const { key } of look.feeds) {
    if (JSON.stringify(plans[key]) === JSON.stringify(was[key])) plan(key, becomes[key]);
  }
}

function isZone(zone: string): boolean {
  try {
    Intl.DateTimeFormat('en', { timeZone: zone });
    return zone.trim() !== '';
  } catch {
    return false;
  }
}

const styles = StyleSheet.create({
  faint: { opacity: 0.6 },
  again: { gap: 4, paddingVertical: 6 },
  foot: { paddingVertical: 16, gap: 8, alignItems: 'flex-start' },
  buttons: { flexDirection: 'row', gap: 10, flexWrap: 'wrap', paddingVertical: 4 },
});
