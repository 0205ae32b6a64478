import fc from 'fast-check';
import { DEFAULT_TREND_SCALE } from '../../board/scaleChoice';
import { seriesOf } from '../../series/series';
import type { TrendAnswer } from '../../api/readings';
import { m4 } from '../../series/m4';
import {
  columnLabels,
  labelPlaces,
  oneSeries,
  stepPath,
  trendLayout,
  type LayoutOptions,
  type TrendSeries,
} from './trendLayout';
import { sharedScale, valueAxis } from '../valueAxis';
import { PLAIN_TREND, trendPlot } from './trendPlot';
import { trendScene } from './trendScene';

const WINDOW = { start: 0, end: 100 };
const LINEAR = DEFAULT_TREND_SCALE;
const answer = (v: readonly (number | null)[], part: Partial<TrendAnswer> = {}): TrendAnswer => ({
  window: WINDOW,
  zone: 'UTC',
  unit: 'kW',
  now: 1000,
  t: v.map((_, i) => i * 10),
  v,
  bucket: null,
  until: null,
  gaps: [],
  samples: v.length,
  ...part,
});
const series = (key: string, v: readonly (number | null)[], unit = 'kW'): TrendSeries => ({
  key,
  name: key,
  assetId: key,
  answer: answer(v, { unit }),
});
const OPTIONS: LayoutOptions = {
  window: WINDOW,
  width: 200,
  height: 100,
  mark: 'line',
  cumulative: false,
  scale: LINEAR,
  band: null,
};

describe('trendLayout', () => {
  it('gives each of two units an axis of its own', () => {
    const scene = trendLayout([series('a', [1, 2]), series('b', [500, 900], '°C')], OPTIONS);
    expect(scene.axes.map(({ unit }) => unit)).toEqual(['kW', '°C']);
    expect(scene.series.map(({ key, axis }) => [key, axis])).toEqual([
      ['a', 0],
      ['b', 1],
    ]);
  });

  it('has the ends of each axis from the band of its own where that is asked', () => {
    const band = { direction: 'lower' as const, caution: 3, breach: 4, target: 2.5 };
    const secondBand = { direction: 'higher' as const, caution: 60, breach: 50, target: 70 };
    const scene = trendLayout([series('a', [1, 900]), series('b', [-500, 900], '°C')], {
      ...OPTIONS,
      scale: { ...LINEAR, fromTarget: true },
      band,
      secondBand,
    });
    const [left, right] = scene.axes.map(({ domain }) => domain);
    expect(left[0]).toBeGreaterThan(0);
    expect(left[1]).toBeLessThan(6);
    expect(right[0]).toBeGreaterThanOrEqual(40);
    expect(right[1]).toBeLessThanOrEqual(80);
  });

  it('stacks layers by time as far as all are known, and begins stacked, area and columns at zero', () => {
    const scene = trendLayout([series('a', [1, 2, null]), series('b', [10, null, 5])], {
      ...OPTIONS,
      mark: 'stacked',
    });
    expect(scene.series.map(({ top }) => top)).toEqual([
      [1, 2, null],
      [11, null, null],
    ]);
    for (const mark of ['stacked', 'area', 'columns'] as const) {
      expect(trendLayout([series('a', [50, 60])], { ...OPTIONS, mark }).axes[0].domain[0]).toBe(0);
    }
    expect(trendLayout([series('a', [50, 60])], OPTIONS).axes[0].domain[0]).toBeGreaterThan(0);
  });

  it('stacks what is of one unit, and what is compared with beside it', () => {
    const all = [series('a', [1, 2]), series('b', [3, 4]), series('before', [7, 8])];
    const { series: drawn, axes } = trendLayout(all, {
      ...OPTIONS,
      mark: 'stacked',
      compared: 'before',
    });
    expect(drawn.map(({ key, top }) => [key, top])).toEqual([
      ['a', [1, 2]],
      ['b', [4, 6]],
      ['before', [7, 8]],
    ]);
    expect(axes).toHaveLength(1);
    expect(drawn.map(({ area }) => area !== '')).toEqual([true, true, false]);
  });

  it('draws columns of both sides of a comparison', () => {
    const options = {
      ...PLAIN_TREND,
      series: [series('a', [1, 2])],
      reference: series('before', [3, 4]),
      mark: 'columns',
      decimals: 0,
    } as const;
    const plot = trendPlot(options, 400, 200);
    expect(plot.compared!.columns).toHaveLength(2);
    const compared = JSON.stringify(trendScene(plot)).match(/"key":"compared","d":"([^"]*)"/)![1];
    expect(compared.match(/M/g)).toHaveLength(2);
    const [first, other] = [plot.subject.columns[0], plot.compared!.columns[0]];
    expect(other.x).toBeGreaterThanOrEqual(first.x + first.width);
  });

  it('draws a column for every value that is there, side by side and never over one another', () => {
    const all = [series('a', [1, null, 3]), series('b', [2, 4, 6])];
    const { series: drawn } = trendLayout(all, { ...OPTIONS, mark: 'columns' });
    expect(drawn.map(({ columns }) => columns.map(({ at }) => at))).toEqual([
      [0, 2],
      [0, 1, 2],
    ]);
    const edges = drawn.flatMap(({ columns }) => columns).sort((m, n) => m.x - n.x);
    edges
      .slice(1)
      .forEach((column, i) => expect(column.x).toBeGreaterThanOrEqual(edges[i].x + edges[i].width - 1e-9));
  });

  it('writes the value over every column or over none', () => {
    const labels = (count: number, width: number): number => {
      const [drawn] = trendLayout(
        [
          series(
            'a',
            Array.from({ length: count }, () => 1234),
          ),
        ],
        { ...OPTIONS, width, mark: 'columns' },
      ).series;
      return columnLabels([drawn], 0).length;
    };
    expect(labels(5, 500)).toBe(5);
    expect(labels(5, 60)).toBe(0);
  });

  it('turns the axis round, takes fixed ends, and is logarithmic only over values above zero', () => {
    const [plain] = trendLayout([series('a', [1, 1000])], OPTIONS).axes;
    const [turned] = trendLayout([series('a', [1, 1000])], {
      ...OPTIONS,
      scale: { ...LINEAR, reversed: true },
    }).axes;
    expect(plain.at(1)).toBeGreaterThan(plain.at(1000));
    expect(turned.at(1)).toBeLessThan(turned.at(1000));
    const [log] = trendLayout([series('a', [1, 1000])], {
      ...OPTIONS,
      scale: { ...LINEAR, logarithmic: true },
    }).axes;
    expect(log.at(10) - log.at(100)).toBeCloseTo(log.at(100) - log.at(1000), 6);
    const [negative] = trendLayout([series('a', [-5, -1])], {
      ...OPTIONS,
      scale: { ...LINEAR, logarithmic: true },
    }).axes;
    expect(Number.isFinite(negative.at(-3))).toBe(true);
    const [fixed] = trendLayout([series('a', [1, 5])], {
      ...OPTIONS,
      scale: { ...LINEAR, ends: [0, 10] },
    }).axes;
    expect(fixed.domain).toEqual([0, 10]);
  });

  it('shows the same lowest and highest value in every pixel column as drawing all samples would', () => {
    const values = fc.array(fc.double({ min: -1000, max: 1000, noNaN: true }), {
      minLength: 300,
      maxLength: 3000,
    });
    fc.assert(
      fc.property(values, fc.integer({ min: 20, max: 200 }), (v, columns) => {
        const end = v.length * 60_000;
        const all = seriesOf(
          v.map((_, i) => i * 60_000),
          v,
        );
        const thin = m4(all, 0, end, columns);
        const extremes = (
          times: ArrayLike<number>,
          numbers: ArrayLike<number>,
        ): Map<number, [number, number]> => {
          const found = new Map<number, [number, number]>();
          for (let i = 0; i < times.length; i++) {
            const column = Math.floor(times[i] * (columns / end));
            const [low, high] = found.get(column) ?? [Infinity, -Infinity];
            // −0 and 0 are drawn alike.
            found.set(column, [Math.min(low, numbers[i]) + 0, Math.max(high, numbers[i]) + 0]);
          }
          return found;
        };
        expect(extremes(thin.t, thin.v)).toEqual(extremes(all.t, all.v));
        expect(thin.t.length).toBeLessThanOrEqual(4 * columns);
      }),
      { numRuns: 40 },
    );
  });
});

describe('lines of a trend', () => {
  it('as steps hold each value until the next and break at gaps', () => {
    const same = (x: number): number => x;
    expect(stepPath([0, 10, 20, 30], [1, 2, null, 3], null, same, same)).toBe('M0 1H10V2H20M30 3H30');
  });

  it('have names at their ends that lie apart and inside the plot, for any ends', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 200, noNaN: true }), { minLength: 1, maxLength: 12 }),
        (ends) => {
          const places = labelPlaces(ends, 15, 6, 200);
          const sorted = [...places].sort((a, b) => a - b);
          for (let i = 1; i < sorted.length; i++)
            expect(sorted[i] - sorted[i - 1]).toBeGreaterThanOrEqual(15 - 1e-9);
          for (const place of places) {
            expect(place).toBeLessThanOrEqual(200);
            expect(place).toBeGreaterThanOrEqual(6 - 1e-9);
          }
          // Their order is that of the lines.
          for (let i = 0; i < ends.length; i++) {
            for (let j = 0; j < ends.length; j++)
              if (ends[i] < ends[j]) expect(places[i]).toBeLessThan(places[j]);
          }
        },
      ),
    );
  });

  it('of one answer are one line', () => {
    expect(oneSeries(answer([1]), 'x')).toMatchObject([{ name: 'x', assetId: null }]);
  });
});

describe('valueAxis', () => {
  it('stops values beyond its ends at the ends, either way round', () => {
    for (const reversed of [false, true]) {
      const axis = valueAxis({ ...LINEAR, ends: [0, 10] as const, reversed }, null, [], [0, 100]);
      expect([axis.at(-5), axis.at(15)]).toEqual(reversed ? [100, 0] : [0, 100]);
    }
  });

  it('of values side by side takes all of them in', () => {
    const { ends } = sharedScale(LINEAR, null, [
      { value: 3, previous: null },
      { value: null, previous: 90 },
      { value: 40, previous: 20 },
    ]);
    expect(ends![0]).toBeLessThanOrEqual(3);
    expect(ends![1]).toBeGreaterThanOrEqual(90);
  });
});
