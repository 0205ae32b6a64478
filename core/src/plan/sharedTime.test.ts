import fc from 'fast-check';
import type { MetricReading, Summary } from '../domain/metric';
import { seriesOf, type Series } from '../series/series';
import { measure } from '../summary/measure';
import { AMOUNT, LEVEL, MINUTE } from '../testing/makeSeries';
import { cellsOf } from './cells';
import { heldIntervals, sharedParts } from './sharedTime';

/* Hand-worked: gas (kWh) over weight (kg), one-minute amounts. Common practice: sums before ratios; no source. */
const sumOf = (series: Series, reading: MetricReading = AMOUNT, summary: Summary = 'sum') => ({
  series,
  reading,
  summary,
});
const minutes = (values: Readonly<Record<number, number>>): Series =>
  seriesOf(
    Object.keys(values).map((minute) => Number(minute) * MINUTE),
    Object.values(values),
  );

describe('a ratio', () => {
  const window = { start: 0, end: 4 * MINUTE };
  const ratio = (top: Series, bottom: Series, reading = AMOUNT) =>
    measure(sumOf(top, reading), sumOf(bottom), 1, window, window.end);

  it.each([
    ['both whole', { 0: 2, 1: 2, 2: 4, 3: 4 }, { 0: 1, 1: 1, 2: 2, 3: 2 }, { value: 2, coverage: 1 }],
    ['numerator missing for half', { 0: 2, 1: 2 }, { 0: 1, 1: 1, 2: 2, 3: 2 }, { value: 2, coverage: 0.5 }],
    [
      'denominator missing for a quarter',
      { 0: 2, 1: 2, 2: 4, 3: 4 },
      { 0: 1, 1: 1, 2: 2 },
      { value: 2, coverage: 0.75 },
    ],
    ['never both', { 0: 2, 1: 2 }, { 2: 2, 3: 2 }, { value: null, coverage: 0 }],
    [
      'each missing another minute',
      { 0: 2, 1: 2, 2: 6 },
      { 0: 1, 2: 2, 3: 5 },
      { value: 8 / 3, coverage: 0.5 },
    ],
  ])('%s', (_, top, bottom, expected) => {
    expect(ratio(minutes(top), minutes(bottom))).toMatchObject(expected);
  });

  it('leaves out an amount of which only a part is shared', () => {
    // Two-minute gas; the weight of the second minute is missing, so that the first two minutes do not count.
    const gas = { ...AMOUNT, intervalMs: 2 * MINUTE };
    expect(ratio(minutes({ 0: 9, 2: 4 }), minutes({ 0: 1, 2: 1, 3: 1 }), gas)).toMatchObject({
      value: 2,
      coverage: 0.5,
    });
  });

  it('is the ratio of the same sums, minute by minute, over the minutes that both have', () => {
    const values = fc.array(fc.option(fc.integer({ min: 1, max: 50 })), { minLength: 4, maxLength: 4 });
    fc.assert(
      fc.property(values, values, (top, bottom) => {
        const given = (column: readonly (number | null)[]): Series =>
          minutes(Object.fromEntries(column.flatMap((v, i) => (v === null ? [] : [[i, v]]))));
        const both = [0, 1, 2, 3].filter((i) => top[i] !== null && bottom[i] !== null);
        const sum = (column: readonly (number | null)[]) => both.reduce((all, i) => all + column[i]!, 0);
        const { value, coverage } = ratio(given(top), given(bottom));
        expect(coverage).toBe(both.length / 4);
        if (both.length === 0) expect(value).toBeNull();
        else expect(value).toBeCloseTo(sum(top) / sum(bottom), 12);
      }),
    );
  });
});

describe('shared time', () => {
  it('never grows with another series, and lies where each has data', () => {
    const times = fc.uniqueArray(fc.integer({ min: 0, max: 60 }), { maxLength: 30 });
    const reading = fc.constantFrom(LEVEL, AMOUNT, { ...AMOUNT, intervalMs: 7 * MINUTE });
    const one = fc.record({ times, reading }).map(({ times: at, reading: own }) => {
      const sorted = [...at].sort((a, b) => a - b);
      return {
        series: seriesOf(
          sorted.map((m) => m * MINUTE),
          sorted,
        ),
        reading: own,
      };
    });
    const spans = { start: [0, 40 * MINUTE], end: [30 * MINUTE, 60 * MINUTE], into: [0, 1] };
    const covered = (parts: ReturnType<typeof sharedParts>) =>
      parts.flat().reduce((all, { start, end }) => all + end - start, 0);
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 4 }), (all) => {
        const parts = sharedParts(spans, all);
        expect(covered(parts)).toBeLessThanOrEqual(covered(sharedParts(spans, all.slice(1))));
        for (const { series, reading: own } of all) {
          const held = heldIntervals(series, own);
          for (const { start, end } of parts.flat())
            expect(held.some((each) => each.start <= start && each.end >= end)).toBe(true);
        }
      }),
    );
  });
});

describe('cells', () => {
  const metric = (id: string, ...path: string[]) => ({
    id,
    path,
    plantId: path[0],
    assetId: path[path.length - 1],
  });
  const cells = (...sides: Parameters<typeof cellsOf>[0]) =>
    cellsOf(sides).map(
      ({ metrics, complete }) => `${metrics.map(({ id }) => id).join(' ')}${complete ? '' : ' alone'}`,
    );

  it.each([
    [
      'pair on one asset',
      [metric('g1', 'p', '1'), metric('g2', 'p', '2')],
      [metric('w1', 'p', '1'), metric('w2', 'p', '2')],
      ['g1 w1', 'g2 w2'],
    ],
    [
      'leave out a member with one side',
      [metric('g1', 'p', '1')],
      [metric('w1', 'p', '1'), metric('w2', 'p', '2')],
      ['g1 w1', 'w2 alone'],
    ],
    [
      'pair a plant with what lies below',
      [metric('g', 'p')],
      [metric('w1', 'p', '1'), metric('w2', 'p', '2')],
      ['g w1 w2'],
    ],
    [
      'hold a whole plant where nothing pairs',
      [metric('g', 'p', 'boiler')],
      [metric('w1', 'p', '1'), metric('w2', 'p', '2')],
      ['g w1 w2'],
    ],
    ['hold everything where no plant pairs', [metric('g', 'p')], [metric('w', 'q', '1')], ['g w']],
    [
      'keep plants apart',
      [metric('g', 'p', 'boiler'), metric('h', 'q')],
      [metric('w', 'p', '1')],
      ['g w', 'h alone'],
    ],
  ])('%s', (_, top, bottom, expected) => {
    expect(cells(top, bottom)).toEqual(expected);
  });
});
