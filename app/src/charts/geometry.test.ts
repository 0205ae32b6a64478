import fc from 'fast-check';
import { line } from 'd3-shape';
import { levelOf, type TargetBand } from '@vivid-beacon/core';
import { gaugeGeometry, graduations, onCircle, SWEEP } from './gaugeGeometry';
import { valueAxis } from './valueAxis';
import { bandLimits, histogramBars, sharesByLevel, withLimit } from './histogram';
import { spacedOut } from './spacedOut';
import { starPath } from './starPath';
import { bucketMiddles, finishedPart, linePath, nearestIndex, timeTicks, valueDomain } from './trendGeometry';

const BAND: TargetBand = { direction: 'lower', caution: 3, breach: 4, target: 2.5 };

/** A scale with these ends. */
const fixed = (low: number, high: number) => ({
  ends: [low, high] as const,
  reversed: false,
  logarithmic: false,
  broken: false,
});

describe('gaugeGeometry', () => {
  it('drops labels, then graduations, then the unit, then the reference as it gets small', () => {
    const shown = (width: number): boolean[] => {
      const g = gaugeGeometry(width);
      return [g.showLabels, g.showGraduations, g.showUnit, g.showReference];
    };
    expect(shown(220)).toEqual([true, true, true, true]);
    expect(shown(219)).toEqual([false, true, true, true]);
    expect(shown(139)).toEqual([false, false, true, true]);
    expect(shown(119)).toEqual([false, false, false, true]);
    expect(shown(111)).toEqual([false, false, false, false]);
  });

  it('stays inside its box at any size', () => {
    fc.assert(
      fc.property(fc.integer({ min: 80, max: 600 }), fc.integer({ min: -SWEEP, max: SWEEP }), (width, at) => {
        const g = gaugeGeometry(width);
        const [x, y] = onCircle(g.cx, g.cy, g.outer, at);
        expect(x).toBeGreaterThanOrEqual(0);
        expect(x).toBeLessThanOrEqual(width);
        expect(y).toBeGreaterThanOrEqual(0);
        expect(y).toBeLessThanOrEqual(g.height);
        expect(g.inner).toBeLessThan(g.outer);
      }),
    );
  });

  it('lays the scale over 240 degrees and stops at its ends', () => {
    const toAngle = valueAxis(fixed(0, 10), null, [], [-SWEEP, SWEEP]).at;
    expect([0, 5, 10, 99, -99].map(toAngle)).toEqual([-120, 0, 120, 120, -120]);
  });

  it('graduates at round numbers, minor ones between', () => {
    expect(
      graduations(valueAxis(fixed(0, 6), null, [], [0, 1]))
        .filter(({ major }) => major)
        .map(({ value }) => value),
    ).toEqual([0, 1, 2, 3, 4, 5, 6]);
    expect(graduations(valueAxis(fixed(0, 6), null, [], [0, 1])).filter(({ major }) => !major)).toHaveLength(
      6,
    );
  });
});

describe('linePath', () => {
  it('draws what d3-shape draws, broken where a value is missing', () => {
    const t = [0, 1, 2, 3, 4];
    const v = [1, 2, null, 4, 5];
    const reference = line<number>()
      .defined((i) => v[i] !== null)
      .x((i) => t[i] * 10)
      .y((i) => v[i]!)(t.map((_, i) => i));
    const numbers = (path: string): number[] => path.match(/-?[\d.]+/g)!.map(Number);
    const ours = linePath(
      t,
      v,
      (x) => x * 10,
      (y) => y,
    );
    expect(numbers(ours)).toEqual(numbers(reference!));
    expect(ours.match(/M/g)).toHaveLength(2);
  });
});

describe('trend axes', () => {
  it('shows the band and the data', () => {
    const [low, high] = valueDomain([2, 5.5, null], BAND);
    expect(low).toBeLessThanOrEqual(2);
    expect(high).toBeGreaterThanOrEqual(5.5);
    expect(valueDomain([], null)).toEqual([0, 1]);
  });

  it('labels no more ticks than fit, on local days', () => {
    const window = { start: Date.UTC(2026, 9, 20), end: Date.UTC(2026, 9, 27) };
    const ticks = timeTicks(window, 'Europe/London', 390);
    expect(ticks.length).toBeLessThanOrEqual(6);
    expect(timeTicks(window, 'Europe/London', 900).map(({ t }) => new Date(t).getUTCHours())).toContain(0);
    expect(timeTicks({ start: 0, end: 3_600_000 }, 'UTC', 390)[0].label).toBe('00:00');
  });

  it('puts a bucket at its middle, the unfinished one at the middle of what has passed', () => {
    expect(bucketMiddles([0, 10], [10, 20], 14)).toEqual([5, 12]);
  });

  it('leaves the unfinished period out of the line and says from when it is hatched', () => {
    const answer = { t: [0, 10, 20], v: [5, 6, 1], until: [10, 20, 30], now: 24 };
    expect(finishedPart(answer)).toEqual({ t: [5, 15], v: [5, 6], finishedUntil: 20 });
    expect(finishedPart({ ...answer, until: null })).toEqual({
      t: [0, 10, 20],
      v: [5, 6, 1],
      finishedUntil: 24,
    });
  });

  it('finds the nearest point that has a value', () => {
    expect(nearestIndex([0, 10, 20], [1, null, 3], 12)).toBe(2);
    expect(nearestIndex([0], [null], 0)).toBe(-1);
  });
});

describe('histogram', () => {
  it('counts every value once, with the level of its bar', () => {
    const values = [1, 2, 2.9, 3.5, 5];
    const bars = histogramBars(values, 0, 6, 12, BAND);
    expect(bars.reduce((n, { count }) => n + count, 0)).toBe(values.length);
    expect(bars.find(({ from }) => from === 5)?.level).toBe('breach');
    expect(sharesByLevel(values, BAND)).toEqual({
      clear: expect.closeTo(0.6, 9),
      caution: expect.closeTo(0.2, 9),
      breach: expect.closeTo(0.2, 9),
    });
  });

  it('never lets a limit pass its neighbour', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, min: -100, max: 100 }), (value) => {
        const moved = withLimit(BAND, 'caution', value);
        const limits = bandLimits(moved).map((limit) => limit.value);
        expect(limits).toEqual([...limits].sort((a, b) => a - b));
        expect(levelOf(moved, 4.5)).toBe('breach');
      }),
    );
  });
});

describe('marks', () => {
  it('draws a star of sixteen corners, the first straight up', () => {
    const path = starPath(12, 12, 10.6, 6.5);
    expect(path.startsWith('M12.00 1.40L')).toBe(true);
    expect(path.match(/L/g)).toHaveLength(15);
  });

  it('draws marks that would lie on one another once', () => {
    expect(spacedOut([30, 0, 5, 14], 14)).toEqual([0, 14, 30]);
  });
});
