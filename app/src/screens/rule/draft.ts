import {
  HOUR_MS,
  MINUTE_MS,
  PLAIN_RULE,
  TESTS_OF_KIND,
  type AlarmRule,
  type AlarmTest,
  type AlarmTestKind,
  type Metric,
  type RuleForm,
} from '@vivid-beacon/core';

/** A rule in force as the draft of the one that takes its place. */
export function draftOf({ id, inForce, inForceFrom, watches, ...rule }: AlarmRule): RuleForm {
  void [inForce, inForceFrom, watches];
  return { ...rule, replaces: id };
}

/** The first draft of a rule on a metric; what was chosen before stays where it fits. */
export function firstDraft(metric: Metric, usual: number, before: RuleForm | null): RuleForm {
  const kinds = TESTS_OF_KIND[metric.kind];
  const kind = before && kinds.includes(before.test.kind) ? before.test.kind : kinds[0];
  return {
    ...PLAIN_RULE,
    replaces: null,
    ...before,
    under: null,
    attributes: [],
    suppress: null,
    metricId: metric.id,
    test: firstTest(kind, metric, usual),
    name: usualName(metric, kind),
  };
}

const NAMES: Readonly<Record<AlarmTestKind, string>> = {
  limit: 'high',
  outside: 'outside its band',
  change: 'changes fast',
  silence: 'silent',
  consumption: 'uses much',
  state: 'not running',
  runRules: 'drifts',
  baseline: 'unusual',
};

/** "Ironer 2 bed temperature high". */
export function usualName(metric: Metric, kind: AlarmTestKind): string {
  return `${metric.assetName} ${metric.name.toLowerCase()} ${NAMES[kind]}`;
}

const SILENT_INTERVALS = 10;

/** A test of a kind to begin with, around a value that is usually not passed. */
export function firstTest(kind: AlarmTestKind, metric: Metric, usual: number): AlarmTest {
  const step = 10 ** -metric.decimals;
  const round = (value: number): number => Number(value.toFixed(metric.decimals));
  const some = Math.max(step, round(Math.abs(usual) / 10));
  switch (kind) {
    case 'limit':
      return { kind, side: 'above', limit: usual, deadband: 0 };
    case 'outside':
      return { kind, low: round(usual - 2 * some), high: usual, deadband: 0 };
    case 'change':
      return { kind, side: 'rise', limit: some, inPercent: false, overMs: 30 * MINUTE_MS, deadband: 0 };
    case 'silence':
      return { kind, forMs: Math.max(5 * MINUTE_MS, metric.intervalMs * SILENT_INTERVALS) };
    case 'consumption':
      return { kind, limit: Math.max(step, usual), per: 'day', pace: false };
    case 'state':
      return { kind, code: 1, is: false };
    case 'runRules':
      return { kind, rules: [1, 2, 3], point: metric.intervalMs < HOUR_MS ? 'hour' : 'sample' };
    case 'baseline':
      return { kind, side: 'above', limit: 4, deadband: 1 };
  }
}
