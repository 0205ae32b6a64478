import fc from 'fast-check';
import { seriesOf } from '../series/series';
import { AMOUNT, LEVEL, MINUTE } from '../testing/makeSeries';
import { timeByLevel } from './bandTime';
import { clippedSteps, levelsOfSteps, stepsOfSamples } from './levelSteps';
import { levelOf, type TargetBand } from './targetBand';

const BAND: TargetBand = { direction: 'lower', caution: 20, breach: 30, target: null };
const spansOf = (...edges: [number, number][]) => ({
  start: edges.map(([start]) => start),
  end: edges.map(([, end]) => end),
  into: edges.map((_, i) => i),
});

/* Hand-worked: a level trusted for ten minutes, an amount for its minute. */
describe('time on each level from held samples', () => {
  it.each([
    ['a stretch inside one sample', [0], [40], [2.5, 4.25], { breach: 1.75 }],
    ['a change in the middle', [0, 3], [10, 25], [1, 5], { clear: 2, caution: 2 }],
    ['what held before the stretch began', [0, 6], [40, 10], [5, 8], { breach: 1, clear: 2 }],
    ['a gap after the longest allowed one', [0, 15], [10, 40], [0, 20], { clear: 10, nodata: 5, breach: 5 }],
    ['nothing at all', [], [], [0, 7], { nodata: 7 }],
    ['only later samples', [9], [10], [0, 7], { nodata: 7 }],
  ])('%s', (_, t, v, [from, to], minutes) => {
    const series = seriesOf(
      t.map((m) => m * MINUTE),
      v,
    );
    const spans = spansOf([from * MINUTE, to * MINUTE]);
    const time = timeByLevel(levelsOfSteps(BAND, stepsOfSamples(series, LEVEL, spans)));
    expect(time).toEqual({
      ...{ clear: 0, caution: 0, breach: 0, nodata: 0 },
      ...Object.fromEntries(Object.entries(minutes).map(([level, n]) => [level, n * MINUTE])),
    });
  });

  it('is the level of every single ms, and adds up to the stretch', () => {
    const sample = fc.record({ t: fc.integer({ min: -50, max: 300 }), v: fc.integer({ min: 0, max: 50 }) });
    const samples = fc.uniqueArray(sample, { selector: ({ t }) => t, maxLength: 20 });
    const edges = fc.uniqueArray(fc.integer({ min: 0, max: 250 }), { minLength: 4, maxLength: 4 });
    const readings = fc.constantFrom({ ...LEVEL, maxGapMs: 37 }, { ...AMOUNT, intervalMs: 11 });
    fc.assert(
      fc.property(samples, edges, readings, (given, cuts, reading) => {
        const inOrder = [...given].sort((a, b) => a.t - b.t);
        const series = seriesOf(
          inOrder.map(({ t }) => t),
          inOrder.map(({ v }) => v),
        );
        const [a, b, c, d] = [...cuts].sort((x, y) => x - y);
        const steps = stepsOfSamples(series, reading, spansOf([a, b], [c, d]));
        const time = timeByLevel(levelsOfSteps(BAND, steps));
        const expected = { clear: 0, caution: 0, breach: 0, nodata: 0 };
        const hold = reading.kind === 'amount' ? reading.intervalMs : reading.maxGapMs;
        for (let at = a; at < d; at++) {
          if (at >= b && at < c) continue;
          const held = inOrder.findLast(({ t }) => t <= at);
          expected[levelOf(BAND, held && at < held.t + hold ? held.v : null)]++;
        }
        expect(time).toEqual(expected);
        const part = timeByLevel(levelsOfSteps(BAND, clippedSteps(steps, { start: a + 1, end: d - 1 })));
        expect(Object.values(part).reduce((x, y) => x + y)).toBe(b - a + (d - c) - 2);
      }),
    );
  });
});
