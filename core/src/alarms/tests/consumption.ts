import * as yup from 'yup';
import { formatValue } from '../../format/format';
import type { Series } from '../../series/series';
import { counterStep } from '../../summary/counterStep';
import type { Interval } from '../../time/interval';
import { CONSUMPTION_PERIODS, consumptionSpan, type ConsumptionPeriod } from '../consumptionSpan';
import { moreThanNothing, nearer } from './fields';
import { testKind, type Signal, type SignalContext } from './testKind';

const PERIOD: Readonly<Record<ConsumptionPeriod, string>> = {
  hour: 'in the hour',
  day: 'in the day',
  month: 'in the month',
  year: 'in the year',
};

/** The period in progress, its sum so far, and the newest reading of a register. */
interface Memory {
  readonly kind: 'consumption';
  readonly start: number;
  readonly total: number;
  readonly last: number | null;
}

/**
 * More than `limit` in a calendar period of the site; with `pace`, as soon as the pace so far predicts it.
 */
export const consumptionTest = testKind('consumption', {
  limit: moreThanNothing,
  per: yup.string().oneOf(CONSUMPTION_PERIODS).required(),
  pace: yup.boolean().required(),
})({
  label: 'consumption',
  ending: 'uses much',
  metrics: ['amount', 'register'],
  hasLimit: true,
  begin: ({ decimals }, usual) => ({
    kind: 'consumption',
    limit: Math.max(10 ** -decimals, usual),
    per: 'day',
    pace: false,
  }),
  words: (test, { unit, decimals }) =>
    `${test.pace ? 'on the way to' : 'over'} ${formatValue(test.limit, unit, decimals)} ${PERIOD[test.per]}`,
  milder: (test) => ({ ...test, limit: nearer(test.limit, false) }),
  threshold: (test) => ({ limit: test.limit, deadband: 0 }),
  signal: (test, context, series, memory, first) =>
    consumption(test, context, series, memory as Memory | undefined, first),
  // A register's gain needs the reading before the period.
  contextStart: ({ per }, { site, maxGapMs }, at) => consumptionSpan(at, per, site.zone).start - maxGapMs,
});

/** Share of a period that has to pass before its pace is evaluated. */
const PACE_FROM = 0.1;

/**
 * Sum of a local calendar period so far. A register's gain counts at the later reading. With a pace: the
 * projected sum of the whole period.
 */
function consumption(
  { per, pace }: { readonly per: ConsumptionPeriod; readonly pace: boolean },
  { reading, site }: SignalContext,
  { t, v }: Series,
  memory: Memory | undefined,
  first: number,
): Signal {
  const x = new Float64Array(t.length).fill(NaN);
  const totals = new Float64Array(t.length).fill(NaN);
  let { total, last } = memory ?? { total: 0, last: null };
  let span = memory ? consumptionSpan(memory.start, per, site.zone) : null;
  for (let i = first; i < t.length; i++) {
    if (Number.isNaN(v[i])) continue;
    if (!span || t[i] >= span.end) {
      span = consumptionSpan(t[i], per, site.zone);
      total = 0;
    }
    if (reading.kind === 'register') {
      if (last !== null) total += counterStep(last, v[i], reading.rollover);
      last = v[i];
    } else total += v[i];
    totals[i] = total;
    x[i] = pace ? atPace(total, t[i] + (reading.kind === 'amount' ? reading.intervalMs : 0), span) : total;
  }
  const carried: Memory | null = span && { kind: 'consumption', start: span.start, total, last };
  return { x, shown: totals, memory: carried ?? undefined };
}

function atPace(total: number, upTo: number, { start, end }: Interval): number {
  const share = (Math.min(upTo, end) - start) / (end - start);
  return share < PACE_FROM ? -Infinity : total / share;
}
