import {
  needsTarget,
  SUMMARIES_OF_KIND,
  type Direction,
  type IndicatorDefinition,
  type Judge,
  type Metric,
} from '@vivid-beacon/core';
import { firstBand } from '../../bands/firstBand';
import { problemOf, problemOfThresholds } from '../editor/bandProblem';

/** The parts of the sentence an indicator is written with. */
export type IndicatorSlot =
  'measure' | 'per' | 'window' | 'judge' | 'target' | 'reference' | 'format' | 'owner';

/** The window of a new indicator. */
export const FIRST_WINDOW = { kind: 'rolling', count: 24, unit: 'hour' } as const;

/**
 * A first definition on a metric: the usual summary of the last day, lower is better.
 *
 * @param past values over windows as long, from low to high: the limits are those its past suggests.
 */
export function firstDefinition(metric: Metric, past: readonly number[]): IndicatorDefinition {
  const band = firstBand(past.length > 0 ? past : [metric.last?.v ?? 0], 'lower');
  return {
    name: `${metric.name}, ${metric.assetName}`,
    description: '',
    assetId: metric.assetId,
    ownerId: null,
    measure: { metricId: metric.id, summary: SUMMARIES_OF_KIND[metric.kind][0], per: null },
    window: FIRST_WINDOW,
    hours: null,
    judge: { kind: 'limits', band: { ...band, target: null } },
    target: { kind: 'none' },
    reference: { kind: 'before' },
    decimals: metric.decimals,
    display: 'units',
    boardId: null,
  };
}

/** Another metric in a definition: what rests on the old one goes, a name that was made follows. */
export function withMetric(
  definition: IndicatorDefinition,
  before: Metric | undefined,
  metric: Metric,
): IndicatorDefinition {
  const kinds = SUMMARIES_OF_KIND[metric.kind];
  const { summary } = definition.measure;
  const made = before && definition.name === `${before.name}, ${before.assetName}`;
  return {
    ...definition,
    name: made ? `${metric.name}, ${metric.assetName}` : definition.name,
    assetId: metric.assetId,
    measure: { metricId: metric.id, summary: kinds.includes(summary) ? summary : kinds[0], per: null },
    decimals: metric.decimals,
  };
}

/** Which way is better; custom thresholds lie on both sides, as inside does. */
export function directionOf(judge: Judge): Direction {
  if (judge.kind === 'target') return judge.direction;
  if (judge.kind === 'targetCuts' || judge.band.direction === 'cuts') return 'inside';
  return judge.band.direction;
}

const FIRST_SHARES = {
  cuts: [85, 95, 105, 115],
  levels: ['breach', 'caution', 'clear', 'caution', 'breach'],
} as const;

/** The other kind of judge, with the same direction. */
export function otherJudge(judge: Judge, kind: Judge['kind'], usual: number): Judge {
  if (judge.kind === kind) return judge;
  const direction = directionOf(judge);
  const share = (by: number): number => Number((usual * by).toPrecision(4));
  if (kind === 'target') return { kind, direction, clear: 95, caution: 85 };
  if (kind === 'targetCuts') return { kind, ...FIRST_SHARES };
  return {
    kind: 'limits',
    band:
      direction === 'inside'
        ? {
            direction,
            breachLow: share(0.9),
            clearLow: share(0.95),
            clearHigh: share(1.05),
            breachHigh: share(1.1),
            target: null,
          }
        : direction === 'lower'
          ? { direction, caution: share(1), breach: share(1.1), target: null }
          : { direction, caution: share(1), breach: share(0.9), target: null },
  };
}

/** The problem that prevents saving a definition; null = none. */
export function problemOfDefinition({ name, judge, target }: IndicatorDefinition): string | null {
  if (name.trim() === '') return 'Give it a name.';
  if (judge.kind === 'target' && judge.caution > judge.clear) return 'Caution must begin at or before Clear.';
  if (judge.kind === 'targetCuts' && problemOfThresholds(judge)) return problemOfThresholds(judge)!.message;
  if (judge.kind === 'limits' && problemOf(judge.band)) return problemOf(judge.band)!.message;
  if (needsTarget(judge) && target.kind === 'none') return 'Shares of a target need a target.';
  return null;
}
