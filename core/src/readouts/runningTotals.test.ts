import fc from 'fast-check';
import { makeReadout } from '../board/board';
import type { Metric } from '../api/metrics';
import type { TrendAnswer } from '../api/readings';
import { levelOf } from '../bands/targetBand';
import { WHOLE_SCOPE } from '../domain/query';
import { NOTHING_ALONG, trendPlot } from '../drawing/trend/trendPlot';
import { isProblem, type ReadoutInputs } from './readoutData';
import { newestDrawn, trend, plotsOfTrend } from './trend';
import { trendCaption } from './trendCaption';
import type { TrendChoices } from './trendChoices';
import type { TrendData } from './trendData';

const DAY = 86_400_000;
const START = Date.UTC(2026, 10, 1);
const BAND = { direction: 'lower', caution: 30, breach: 60, target: 20 } as const;
const METRIC = {
  id: '1',
  name: 'Gas',
  assetId: 'a',
  assetName: 'Dryer 1',
  plantName: 'Quayside',
  zone: 'UTC',
  unit: 'kWh',
};

/** A trend of days; the last day is half over. */
function dataOf(
  v: readonly (number | null)[],
  cumulative: boolean,
  zoomed: { readonly start: number; readonly end: number } | null = null,
): TrendData {
  const t = v.map((_, i) => START + i * DAY);
  const now = START + (v.length - 0.5) * DAY;
  const inputs = {
    readout: makeReadout('r', 'trend', {
      measures: [{ metricId: '1', summary: 'sum', per: null }],
      band: BAND,
      bucket: 'day',
      cumulative,
    }),
    window: { kind: 'toDate', unit: 'month' },
    scope: WHOLE_SCOPE,
    hours: null,
    follows: false,
    metrics: new Map([['1', METRIC as Metric]]),
    facts: new Map(),
    view: { width: 480, zoomed, now },
  } as unknown as ReadoutInputs<TrendChoices>;
  const answer: TrendAnswer = {
    window: { start: START, end: START + 30 * DAY },
    ...{ zone: 'UTC', unit: 'kWh', now, bucket: 'day', gaps: [], samples: v.length, t },
    v: [...v],
    until: t.map((start) => start + DAY),
  };
  const data = trend.data(inputs, [answer]);
  if (isProblem(data)) throw new Error('no trend');
  return data;
}
const plotOf = (data: TrendData) =>
  trendPlot(plotsOfTrend(data, { focus: null, chosen: null, along: NOTHING_ALONG })[0], 480, 240);

describe('a running total', () => {
  it('is one number on the curve, in the legend, in words and as rows', () => {
    const value = fc.option(fc.integer({ min: 0, max: 1000 }), { nil: null });
    fc.assert(
      fc.property(fc.array(value, { minLength: 1, maxLength: 30 }), (v) => {
        const data = dataOf(v, true);
        const { subject } = plotOf(data);
        const known = v.filter((each): each is number => each !== null);
        const total = known.length === 0 ? null : known.reduce((a, b) => a + b, 0);
        expect(newestDrawn(data.series[0], true)).toBe(total);
        expect(subject.v.findLast((each) => each !== null) ?? null).toBe(total);
        const rows = trend.table(data).rows.map(([, each]) => each);
        expect(rows.findLast((each) => each !== null) ?? null).toBe(total);
        expect(subject.v).toEqual(rows);
      }),
    );
  });

  it('goes on where it was when a stretch of it is looked at', () => {
    const zoomed = { start: START + 2 * DAY, end: START + 4 * DAY };
    const data = dataOf([10, null, 20, 30, 40, 5], true, zoomed);
    expect(data.window).toEqual(zoomed);
    expect(data.series[0].answer.v).toEqual([30, 60]);
    expect(trendCaption(data)).toContain('without 1 with too little data');
    const whole = dataOf([10, null, 20, 30, 40, 5], true);
    expect(whole.series[0].answer.v.slice(2, 4)).toEqual([30, 60]);
  });

  it('has the unfinished period, up to now and hatched, and says what it is without', () => {
    const data = dataOf([10, null, 20, 5], true);
    const { subject, layout } = plotOf(data);
    expect(subject.t.map((t) => (t - START) / DAY)).toEqual([1, 2, 3, 3.5]);
    expect((layout.finishedUntil - START) / DAY).toBe(3);
    expect(trendCaption(data)).toContain(
      'running total, one value for each day, without 1 with too little data, this day so far',
    );
  });

  it('is judged against the target as a total', () => {
    const { bands, channels, subject } = plotOf(dataOf([10, 15, 10, 30], true));
    expect(subject.v.map((value) => levelOf(bands[0]!, value))).toEqual([
      'clear',
      'clear',
      'caution',
      'breach',
    ]);
    expect(channels[0].length).toBeGreaterThan(0);
  });
});

it('the legend of any trend has the value at the end of its line', () => {
  const data = dataOf([10, 20, 3], false);
  // The third day is half over and not drawn.
  expect(newestDrawn(data.series[0], false)).toBe(20);
  expect(plotOf(data).subject.v).toEqual([10, 20]);
});
