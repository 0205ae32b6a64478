import * as yup from 'yup';
import type { Series } from '../../series/series';
import { DAY_MS, HOUR_MS } from '../../time/lengths';
import {
  addToPoint,
  CHART_POINTS,
  chartPoints,
  follows,
  type ChartPoint,
  type OpenPoint,
} from '../chartPoints';
import { brokenRunRules, individualsChart, RUN_LENGTH, RUN_RULES } from '../nelson';
import { testKind, type Signal, type SignalContext } from './testKind';

/** Centre and spread of the chart. */
interface Model {
  readonly kind: 'chart';
  readonly centre: number;
  readonly sigma: number;
}

/** The point in progress, and the newest finished points in σ from the centre. */
interface Memory {
  readonly kind: 'chart';
  readonly open: OpenPoint | null;
  readonly z: readonly number[];
  /** Time of the newest sample, ms. */
  readonly t?: number;
}

/** Fewest points to set up a control chart; common practice, no source: 20 to 30. */
const MIN_POINTS = 20;

/** One of the numbered run rules (nelson.ts) is broken on a chart of individual values. */
export const runRulesTest = testKind('runRules', {
  rules: yup
    .array(
      yup
        .number()
        .oneOf(RUN_RULES.map(({ rule }) => rule))
        .required(),
    )
    .min(1, 'Choose at least one run rule')
    .required(),
  point: yup.string().oneOf(CHART_POINTS).required(),
})({
  label: 'run rules',
  ending: 'drifts',
  metrics: ['level', 'amount'],
  hasLimit: false,
  begin: ({ intervalMs }) => ({
    kind: 'runRules',
    rules: [1, 2, 3],
    point: intervalMs < HOUR_MS ? 'hour' : 'sample',
  }),
  words: ({ rules }) => `breaking run rule${rules.length === 1 ? '' : 's'} ${rules.join(', ')}`,
  threshold: () => ({ limit: 0.5, deadband: 0 }),
  signal: (test, context, series, memory, first) =>
    chart(test, context as SignalContext<Model>, series, memory as Memory | undefined, first),
  contextStart: ({ point }, { reading }, at, settleMs) => {
    const length = { sample: reading.intervalMs, hour: HOUR_MS, day: DAY_MS }[point];
    return at - settleMs - 2 * RUN_LENGTH * length;
  },
  learn: ({ point }, past, reading, zone): Model | null => {
    const points = chartPoints(past, point, reading, zone);
    const known = points.filter((value) => !Number.isNaN(value)).length;
    const found = known < MIN_POINTS ? null : individualsChart(points);
    return found && { kind: 'chart', ...found };
  },
});

/** 1 while the newest finished point breaks one of the run rules. */
function chart(
  { rules, point }: { readonly rules: readonly number[]; readonly point: ChartPoint },
  { model, reading, maxGapMs, site }: SignalContext<Model>,
  { t, v }: Series,
  memory: Memory | undefined,
  first: number,
): Signal {
  const x = new Float64Array(t.length).fill(NaN);
  let open = memory?.open ?? null;
  let z = memory?.z ?? [];
  let newest = memory?.t ?? NaN;
  const carried = (): Memory => ({
    kind: 'chart',
    open,
    z,
    ...(Number.isNaN(newest) ? {} : { t: newest }),
  });
  if (!model) return { x, shown: v, memory: carried() };
  let broken = brokenRunRules(z, rules).length > 0 ? 1 : 0;
  const take = (value: number): void => {
    // A gap, or an hour or day with too little data, interrupts the run.
    z = Number.isNaN(value) ? [] : [...z.slice(1 - RUN_LENGTH), (value - model.centre) / model.sigma];
    broken = brokenRunRules(z, rules).length > 0 ? 1 : 0;
  };
  const held = { kind: reading.kind, maxGapMs };
  for (let i = first; i < t.length; i++) {
    if (Number.isNaN(v[i])) continue;
    if (point === 'sample') {
      if (t[i] - newest > maxGapMs) take(NaN);
      take(v[i]);
    } else {
      const before = open;
      const step = addToPoint(open, t[i], v[i], point, held, site.zone);
      open = step.open;
      if (step.finished !== null) take(step.finished);
      if (before && !follows(before, open, point, site.zone)) take(NaN);
    }
    newest = t[i];
    x[i] = broken;
  }
  return { x, shown: v, memory: carried() };
}
