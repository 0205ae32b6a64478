import { DAY_MS } from '@vivid-beacon/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useStore } from 'zustand';
import { useQueryClient } from '@tanstack/react-query';
import type { Asset, Metric } from '@vivid-beacon/core';
import type { FileTarget, FileTargets } from '@vivid-beacon/core/src/intakeFiles';
import { addAsset, addMetric } from '../../api/changes';
import { useSession } from '../../api/session';
import { Button } from '../../components/Button';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { feedsOf, type createIntakeStore, type ColumnPlan, type Plans } from '../../stores/intakeStore';
import { usePalette } from '../../theme/useTheme';
import type { Look } from '../../workers/readFile';
import { AssetChoice, type ChosenAsset } from './AssetChoice';
import { ColumnPlanner } from './ColumnPlanner';
import { FirstRows } from './FirstRows';
import { LayoutCheck } from './LayoutCheck';

interface IntakeCheckProps {
  readonly store: ReturnType<typeof createIntakeStore>;
  readonly assets: readonly Asset[];
  readonly metrics: readonly Metric[];
}

const USUAL_STEP_MS = 3_600_000;
const SHOWN_AT_ONCE = 40;

/** Shows how the file was understood, lets it be corrected, and asks what each column feeds. */
export function IntakeCheck({ store, assets, metrics }: IntakeCheckProps) {
  const palette = usePalette();
  const client = useQueryClient();
  const { look, shape, plans, correct, remembered, actions } = useStore(store);
  const token = useSession().data?.csrfToken ?? '';
  const [asset, setAsset] = useState<ChosenAsset>({
    id: null,
    name: '',
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  });
  const [busy, setBusy] = useState(false);
  const [shown, setShown] = useState(SHOWN_AT_ONCE);
  if (!look) return null;
  const { timeFormats, stepMs, columns } = look.recognised;
  const takesSamples = metrics.filter(({ origin }) => origin === 'samples');
  const mustAsk = timeFormats.length > 1 && correct.timeFormat === undefined;
  const feeds = feedsOf(look);
  const taken = feeds.filter(({ key }) => plans[key] && plans[key].to !== 'nothing');
  const needsAsset = taken.some(({ key }) => plans[key].to === 'new');
  const zone = zoneOf(
    asset,
    assets,
    metrics,
    taken.map(({ key }) => plans[key]),
  );
  const problem = mustAsk
    ? 'Say whether the day or the month comes first.'
    : taken.length === 0
      ? 'Choose at least one column to take.'
      : taken.some(({ key }) => isOpen(plans[key], takesSamples))
        ? 'Choose the existing metric for every column that feeds one.'
        : needsAsset && asset.id === null && asset.name.trim() === ''
          ? 'Choose an asset, or name a new one.'
          : null;

  const bringIn = async (): Promise<void> => {
    setBusy(true);
    try {
      const fed = await makeMetrics(
        look,
        plans,
        needsAsset ? asset : null,
        stepMs ?? USUAL_STEP_MS,
        (key, metricId) =>
          // A second try must not add the metrics again: they are there now.
          actions.plan(key, { to: 'existing', metricId }),
      );
      await client.invalidateQueries({ queryKey: ['metrics'] });
      actions.read({
        targets: targetsOf(look, fed, metrics),
        zone,
        now: Date.now(),
        formToken: token,
        remember: { shape, layout: look.recognised.layout, plans: rememberedPlans(plans, fed), zone },
      });
    } catch (error) {
      actions.fail((error as Error).message);
    } finally {
      setBusy(false);
    }
  };

  return (
    <>
      {remembered && (
        <Words as="body" colour={palette.ink2}>
          A file of this shape was brought in before: it is read and mapped in the same way. Change what
          differs.
        </Words>
      )}
      <Section title="First rows" aside={`${look.encoding}, ${columns.length} columns`}>
        <FirstRows recognised={look.recognised} />
      </Section>
      <LayoutCheck store={store} zone={zone} mustAsk={mustAsk} />
      <Section
        title={look.recognised.layout.shape === 'samples' ? 'What the names feed' : 'What the columns feed'}
        aside={`${taken.length} of ${feeds.length} taken`}
      >
        {feeds.length > 3 && (
          <View style={styles.all}>
            <Button
              look="quiet"
              label="Take all as new metrics"
              onPress={() =>
                actions.planAll((key, heading, unit) =>
                  plans[key]?.to === 'new'
                    ? plans[key]
                    : { to: 'new', name: heading, unit: unit ?? '', kind: 'level' },
                )
              }
            />
            <Button
              look="quiet"
              label="Leave all out"
              onPress={() => actions.planAll(() => ({ to: 'nothing' }))}
            />
          </View>
        )}
        {feeds.slice(0, shown).map(({ key, heading, unit }) => (
          <ColumnPlanner
            key={key}
            column={{ heading, unit }}
            plan={plans[key] ?? { to: 'nothing' }}
            metrics={takesSamples}
            onPlan={(plan) => actions.plan(key, plan)}
          />
        ))}
        {feeds.length > shown && (
          <Button
            look="quiet"
            label={`Show ${Math.min(SHOWN_AT_ONCE, feeds.length - shown)} more of ${feeds.length - shown}`}
            onPress={() => setShown(shown + SHOWN_AT_ONCE)}
          />
        )}
      </Section>
      {needsAsset && (
        <Section title="Asset of the new metrics">
          <AssetChoice assets={assets} chosen={asset} onChoose={setAsset} />
        </Section>
      )}
      <View style={styles.foot}>
        {problem && (
          <Words as="body" colour={palette.cautionT}>
            {problem}
          </Words>
        )}
        <Button
          look="main"
          label={busy ? 'Preparing' : 'Bring it in'}
          disabled={busy || problem !== null}
          onPress={() => void bringIn()}
        />
      </View>
    </>
  );
}

/** Makes the new asset and metrics, and gives every column or name its metric. */
async function makeMetrics(
  look: Look,
  plans: Plans,
  asset: ChosenAsset | null,
  stepMs: number,
  made: (key: string, metricId: string) => void,
): Promise<Map<string, string>> {
  const assetId =
    asset &&
    (asset.id ?? (await addAsset({ name: asset.name, parentId: null, kind: 'site', zone: asset.zone })).id);
  const fed = new Map<string, string>();
  for (const { key } of feedsOf(look)) {
    const plan = plans[key];
    if (!plan || plan.to === 'nothing') continue;
    if (plan.to === 'existing') {
      fed.set(key, plan.metricId);
      continue;
    }
    const { id } = await addMetric({
      assetId: assetId!,
      name: plan.name,
      unit: plan.unit,
      kind: plan.kind,
      intervalMs: Math.max(1000, stepMs),
      decimals: 1,
    });
    fed.set(key, id);
    made(key, id);
  }
  return fed;
}

function targetsOf(look: Look, fed: ReadonlyMap<string, string>, metrics: readonly Metric[]): FileTargets {
  const target = (metricId: string): FileTarget => {
    const kept = metrics.find(({ id }) => id === metricId)?.retentionDays ?? null;
    const today = Math.floor(Date.now() / DAY_MS) * DAY_MS;
    return { metricId, earliest: kept === null ? null : today - kept * DAY_MS };
  };
  if (look.recognised.layout.shape === 'samples') {
    return { by: 'name', names: Object.fromEntries([...fed].map(([name, id]) => [name, target(id)])) };
  }
  return {
    by: 'column',
    columns: [...fed].map(([key, id]) => ({
      index: Number(key),
      heading: look.recognised.columns[Number(key)].heading,
      ...target(id),
    })),
  };
}

/** For the next file of this shape: what was new now is there then. */
function rememberedPlans(plans: Plans, fed: ReadonlyMap<string, string>): Plans {
  return Object.fromEntries(
    Object.entries(plans).map(([key, plan]) => {
      const metricId = fed.get(key);
      return [key, metricId ? { to: 'existing', metricId } : plan];
    }),
  );
}

/** The zone local times are read in: that of the asset the file feeds. */
function zoneOf(
  asset: ChosenAsset,
  assets: readonly Asset[],
  metrics: readonly Metric[],
  plans: readonly ColumnPlan[],
): string {
  const existing = plans.find((plan) => plan.to === 'existing');
  const metric = existing?.to === 'existing' && metrics.find(({ id }) => id === existing.metricId);
  if (metric && !plans.some((plan) => plan.to === 'new')) return metric.zone;
  return assets.find(({ id }) => id === asset.id)?.zone ?? asset.zone;
}

function isOpen(plan: ColumnPlan, metrics: readonly Metric[]): boolean {
  return plan.to === 'existing' && !metrics.some(({ id }) => id === plan.metricId);
}

const styles = StyleSheet.create({
  foot: { paddingVertical: 16, gap: 8, alignItems: 'flex-start' },
  all: { flexDirection: 'row', gap: 10, flexWrap: 'wrap', paddingVertical: 4 },
});
