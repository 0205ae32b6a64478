import { stampShift, type Metric, type MetricKind } from '@vivid-beacon/core';
import { HEADING, wordsOf } from '@vivid-beacon/core/src/intake/headingWords';
import type { FileTarget, FileTargets } from '@vivid-beacon/core/src/intakeFiles';
import type { NewAssetOfFile, NewMetricOfFile } from '../workers/intakeMessages';
import type { MadeWithFile } from '@vivid-beacon/core';
import type { FileScan, SeenFeed } from '../workers/scanFile';

/** The plan for a series of the file. */
export type ColumnPlan =
  | { readonly to: 'nothing' }
  | { readonly to: 'existing'; readonly metricId: string }
  | { readonly to: 'new'; readonly name: string; readonly unit: string; readonly kind: MetricKind };

/** By key of the series. */
export type Plans = Readonly<Record<string, ColumnPlan>>;

/** The asset that new metrics belong to: one that is there (id), or a new one with a name and a zone. */
export interface ChosenAsset {
  readonly id: string | null;
  readonly name: string;
  readonly zone: string;
  /** Column whose words name assets under it, one for each; null = all metrics belong to the asset itself. */
  readonly namedBy: number | null;
}

/** Words for things rather than quantities. */
const ASSET_HEADING =
  / (?:asset|machine|device|equipment|line|station|site|plant|location|place|city|region|host|instance|anlage|maschine|gerat|linie|standort|ort|appareil|ligne|lieu|maquina|linea|lugar|macchina|luogo|lijn|plaats) /;

/** The name column that most likely names assets, where there is more to tell than that. */
export function assetColumnOf({ recognised: { layout } }: FileScan): number | null {
  const found = layout.nameColumns.find((i) => ASSET_HEADING.test(wordsOf(layout.headings[i])));
  const more =
    layout.nameColumns.length > 1 || layout.blocks.some(({ valueColumns }) => valueColumns.length > 1);
  return found !== undefined && more && HEADING.name.test(wordsOf(layout.headings[found])) ? found : null;
}

/** What a new metric of a series is called, where one of its name columns names the asset instead. */
export function metricNameOf(
  feed: SeenFeed,
  { recognised: { layout } }: FileScan,
  namedBy: number | null,
): string {
  if (namedBy === null) return feed.label;
  const words = feed.words.filter((word, i) => layout.nameColumns[i] !== namedBy && word !== '');
  const heading = layout.headings[feed.column] ?? 'rows';
  const several = layout.blocks.reduce((n, { valueColumns }) => n + valueColumns.length, 0) > 1;
  return [...words, ...(several || words.length === 0 ? [heading] : [])].join(' / ');
}

/** Everything becomes a new metric until a person says otherwise. */
export function proposals(look: FileScan, namedBy: number | null): Plans {
  return Object.fromEntries(
    look.feeds.map((feed) => {
      const unit = plannedUnit(feed, look);
      return [
        feed.key,
        { to: 'new', name: metricNameOf(feed, look, namedBy), unit, kind: kindFor(unit, look) },
      ];
    }),
  );
}

export function plannedUnit(feed: SeenFeed, { recognised }: FileScan): string {
  return feed.unit ?? feed.sign ?? recognised.columns[feed.column]?.unit ?? '';
}

/** A guess at the kind that a person can change: quantities of energy, weight and volume are amounts. */
function kindFor(unit: string, { recognised: { layout } }: FileScan): MetricKind {
  if (layout.events !== null || layout.collisions === 'sum') return 'amount';
  return /^(k|M|G)?(Wh|g|J)$|^(t|L|l|m3|m³|kg|pieces|pcs|reads)$/.test(unit) ? 'amount' : 'level';
}

/**
 * Where the layout was corrected, what nobody has touched follows the file; what somebody has chosen stays.
 *
 * @param before what was proposed before the correction.
 */
export function carriedPlans(proposed: Plans, before: Plans, plans: Plans): Plans {
  return Object.fromEntries(
    Object.entries(proposed).map(([key, proposal]) => [
      key,
      Object.hasOwn(plans, key) && JSON.stringify(plans[key]) !== JSON.stringify(before[key])
        ? plans[key]
        : proposal,
    ]),
  );
}

const DEFAULT_STEP_MS = 3_600_000;
const MAX_STEP_MS = 366 * 86_400_000;

/** What is sent with the file: where each series goes, and what is made for it. */
export interface IntakeOrder {
  readonly targets: FileTargets;
  readonly made: MadeWithFile;
  /** Plans for the next file of this shape: new metrics by the reference they have until they are made. */
  readonly remembered: Plans;
}

/** What the order needs to know of a metric that is there. */
export interface FedByFile extends Pick<Metric, 'kind' | 'intervalMs' | 'stamped'> {
  /** Samples before it are not taken any more, ms; null = all are. */
  readonly earliest: number | null;
}

/** The targets of a file and what is made for it. A file may say what the times of its amounts stand for. */
export function orderOf(
  look: FileScan,
  plans: Plans,
  asset: ChosenAsset,
  metricOf: (metricId: string) => FedByFile,
): IntakeOrder {
  const targets: Record<string, FileTarget> = {};
  const { stamped } = look.recognised.layout;
  const remembered: Record<string, ColumnPlan> = {};
  const metrics: NewMetricOfFile[] = [];
  const assets: NewAssetOfFile[] = [];
  const places = new Map<string, number>();
  const placeOf = (name: string, make: () => NewAssetOfFile): number => {
    let place = places.get(name);
    if (place === undefined) {
      place = assets.length;
      places.set(name, place);
      assets.push(make());
    }
    return place;
  };
  /** Place in `assets` of the chosen asset; null = it is there already. */
  const chosen = (): number | null =>
    asset.id !== null
      ? null
      : placeOf('', () => ({
          name: asset.name.trim(),
          parentId: null,
          parent: null,
          zone: asset.zone.trim(),
        }));
  const { nameColumns } = look.recognised.layout;
  const assetOf = (feed: SeenFeed): number | null => {
    const word = asset.namedBy === null ? '' : (feed.words[nameColumns.indexOf(asset.namedBy)] ?? '');
    const parent = chosen();
    if (word === '') return parent;
    return placeOf(word.toLowerCase(), () => ({ name: word, parentId: asset.id, parent, zone: null }));
  };
  for (const feed of look.feeds) {
    const plan = plans[feed.key];
    if (!plan || plan.to === 'nothing') {
      remembered[feed.key] = { to: 'nothing' };
      continue;
    }
    if (plan.to === 'existing') {
      const { earliest, ...metric } = metricOf(plan.metricId);
      const shiftMs = stampShift(metric, stamped ?? metric.stamped);
      targets[feed.key] = { metricId: plan.metricId, earliest, shiftMs };
      remembered[feed.key] = plan;
      continue;
    }
    const ref = `new-${metrics.length}`;
    const place = assetOf(feed);
    const intervalMs = Math.round(Math.min(MAX_STEP_MS, Math.max(1000, feed.stepMs ?? DEFAULT_STEP_MS)));
    const written = stamped ?? 'start';
    metrics.push({
      ref,
      assetId: place === null ? asset.id : null,
      asset: place,
      name: plan.name.trim(),
      unit: plan.unit.trim(),
      kind: plan.kind,
      intervalMs,
      stamped: written,
      decimals: 1,
    });
    const shiftMs = stampShift({ kind: plan.kind, intervalMs }, written);
    targets[feed.key] = { metricId: ref, earliest: null, shiftMs };
    remembered[feed.key] = { to: 'existing', metricId: ref };
  }
  return { targets, made: { assets, metrics }, remembered };
}
