import { linePath } from './linePath';
import fc from 'fast-check';
import { line } from 'd3-shape';
import type { TargetBand } from '../bands/targetBand';
import { DEFAULT_SCALE, SECTOR_PLACES } from '../board/scaleChoice';
import { gaugeGeometry, graduations, onCircle, SWEEP } from './gaugeGeometry';
import { starPath } from './starPath';
import { bucketMiddles, drawnPart, nearestIndex, timeTicks, valueDomain } from './trend/trendGeometry';
import { valueAxis } from './valueAxis';

const BAND: TargetBand = { direction: 'lower', caution: 3, breach: 4, target: 2.5 };

/** A scale with these ends. */
const fixed = (low: number, high: number) => ({ ...DEFAULT_SCALE, ends: [low, high] as const });

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
        for (const place of SECTOR_PLACES) {
          const g = gaugeGeometry(width, place);
          const [x, y] = onCircle(g.cx, g.cy, g.edge, at);
          expect(x).toBeGreaterThanOrEqual(0);
          expect(x).toBeLessThanOrEqual(width);
          expect(y).toBeGreaterThanOrEqual(0);
          expect(y).toBeLessThanOrEqual(g.height);
          expect(g.inner).toBeLessThan(g.outer);
          expect(g.lit).toBeGreaterThan(0.5 * g.radius);
        }
      }),
    );
  });

  it('lays the scale over 240 degrees and stops at its ends', () => {
    const toAngle = valueAxis(fixed(0, 10), null, [], [-SWEEP, SWEEP]).at;
    expect([0, 5, 10, 99, -99].map(toAngle)).toEqual([-120, 0, 120, 120, -120]);
  });

  it('puts the sectors on the scale, or slim beside it, and on it where there is no room', () => {
    const [on, inside, outside] = SECTOR_PLACES.map((place) => gaugeGeometry(260, place));
    expect([on.sectors.outer, on.sectors.inner]).toEqual([on.outer, on.inner]);
    expect(inside.sectors.outer).toBeLessThan(inside.inner);
    expect(outside.sectors.inner).toBeGreaterThan(outside.outer);
    // Graduations stand as far out as they do without.
    expect(outside.edge).toBeCloseTo(on.edge, 6);
    expect(gaugeGeometry(120, 'inside')).toEqual(gaugeGeometry(120));
  });

  it('from the target band alone has the ends of its limits, whatever the values', () => {
    const scale = { ...DEFAULT_SCALE, fromTarget: true };
    const [few, many] = [[3], [-50, 900]].map((values) => valueAxis(scale, BAND, values, [0, 1]));
    expect([many.low, many.high]).toEqual([few.low, few.high]);
    expect(few.low).toBeLessThanOrEqual(2.5);
    expect(few.high).toBeGreaterThanOrEqual(4);
    expect(many.at(900)).toBe(1);
    // Without a band the values give them after all.
    expect(valueAxis(scale, null, [0, 900], [0, 1]).high).toBeGreaterThanOrEqual(900);
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
    const answer = { t: [0, 10, 20], v: [5, 6, 1], until: [10, 20, 30], bucket: 'hour' as const, now: 24 };
    const periods = { bucket: 'hour', start: [0, 10], end: [10, 20] };
    expect(drawnPart(answer, false)).toEqual({ t: [5, 15], v: [5, 6], periods, finishedUntil: 20 });
    expect(drawnPart({ ...answer, until: null, bucket: null }, false)).toEqual({
      t: [0, 10, 20],
      v: [5, 6, 1],
      periods: null,
      finishedUntil: 24,
    });
  });

  it('draws a running total up to now, each at the end of its period', () => {
    const answer = { t: [0, 10, 20, 30], v: [5, 11, 12, null], until: [10, 20, 30, 40], now: 24 };
    const { t, v, periods, finishedUntil } = drawnPart({ ...answer, bucket: 'hour' }, true);
    expect([t, v, finishedUntil]).toEqual([[10, 20, 24], [5, 11, 12], 20]);
    expect(periods!.end).toEqual([10, 20, 30]);
  });

  it('finds the nearest point that has a value', () => {
    expect(nearestIndex([0, 10, 20], [1, null, 3], 12)).toBe(2);
    expect(nearestIndex([0], [null], 0)).toBe(-1);
  });
});

describe('starPath', () => {
  it('is a star of sixteen corners, the first straight up', () => {
    const path = starPath(12, 12, 10.6, 6.5);
    expect(path.startsWith('M12.00 1.40L')).toBe(true);
    expect(path.match(/L/g)).toHaveLength(15);
  });
});
