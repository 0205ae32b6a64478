import fc from 'fast-check';
import { levelSpans, timeByLevel, worstSpans } from './bandTime';
import { scaleEnds, targetEnds } from './scaleEnds';
import { checkBand, distanceOf, levelOf, sectorsOf, type TargetBand } from './targetBand';

const LOWER: TargetBand = { direction: 'lower', caution: 3, breach: 4, target: 2.5 };
const HIGHER: TargetBand = { direction: 'higher', caution: 95, breach: 90, target: 97 };
const INSIDE: TargetBand = {
  direction: 'inside',
  breachLow: 10,
  clearLow: 12,
  clearHigh: 18,
  breachHigh: 20,
  target: 15,
};

describe('levelOf', () => {
  it('gives a value exactly on a limit the better level', () => {
    expect([3, 3.1, 4, 4.1].map((v) => levelOf(LOWER, v))).toEqual(['clear', 'caution', 'caution', 'breach']);
    expect([95, 94.9, 90, 89.9].map((v) => levelOf(HIGHER, v))).toEqual([
      'clear',
      'caution',
      'caution',
      'breach',
    ]);
    expect([9.9, 10, 12, 18, 20, 20.1].map((v) => levelOf(INSIDE, v))).toEqual([
      'breach',
      'caution',
      'clear',
      'clear',
      'caution',
      'breach',
    ]);
  });

  it('is No data without a value or with too little coverage', () => {
    expect(levelOf(LOWER, null)).toBe('nodata');
    expect(levelOf(LOWER, 1, 0.74)).toBe('nodata');
    expect(levelOf(LOWER, 1, 0.75)).toBe('clear');
  });
});

describe('sectorsOf', () => {
  it('covers the scale without gaps, and each sector has the level of its middle', () => {
    const band = fc.oneof(fc.constant(LOWER), fc.constant(HIGHER), fc.constant(INSIDE));
    fc.assert(
      fc.property(
        band,
        fc.integer({ min: -50, max: 150 }),
        fc.integer({ min: 1, max: 100 }),
        (each, low, length) => {
          const sectors = sectorsOf(each, low, low + length);
          expect(sectors[0].from).toBe(low);
          expect(sectors[sectors.length - 1].to).toBe(low + length);
          sectors.forEach(({ from, to, level }, i) => {
            if (i > 0) expect(from).toBe(sectors[i - 1].to);
            expect(levelOf(each, (from + to) / 2)).toBe(level);
          });
        },
      ),
    );
  });
});

describe('distanceOf', () => {
  it('says how far a value is from what matters', () => {
    expect(distanceOf(LOWER, 5.3)).toEqual({ by: expect.closeTo(1.3, 9), words: 'over limit' });
    expect(distanceOf(HIGHER, 93)).toEqual({ by: 2, words: 'under Clear' });
    expect(distanceOf(LOWER, 2.5)).toEqual({ by: 0, words: 'on target' });
    expect(distanceOf(INSIDE, 8)).toEqual({ by: 2, words: 'under limit' });
    expect(distanceOf({ ...LOWER, target: null }, 1)).toBeNull();
  });
});

describe('checkBand', () => {
  it('names the limit that is out of order', () => {
    expect(() => checkBand({ ...LOWER, caution: 5 })).toThrow(
      'The end of Clear must be at most the start of Breach (4), got 5.',
    );
    expect(() => checkBand({ ...HIGHER, caution: 80 })).toThrow('at least');
    expect(() => checkBand({ ...INSIDE, clearLow: 19 })).toThrow('lower end of Clear');
    expect(() => checkBand(LOWER)).not.toThrow();
  });
});

describe('targetEnds', () => {
  it('show limits and target of any band, as narrow as it is', () => {
    const limit = fc.double({ noNaN: true, min: -1e6, max: 1e6 });
    fc.assert(
      fc.property(limit, limit, limit, (caution, breach, target) => {
        const [low, high] = targetEnds({ direction: 'lower', caution, breach, target });
        expect(Number.isFinite(low) && Number.isFinite(high) && low < high).toBe(true);
        for (const each of [caution, breach, target]) {
          expect(each).toBeGreaterThanOrEqual(low);
          expect(each).toBeLessThanOrEqual(high);
        }
      }),
    );
    // A scale made from values would include 0: ten degrees are little compared with 200.
    expect(targetEnds({ direction: 'lower', caution: 200, breach: 205, target: 195 })).toEqual([190, 210]);
    expect(
      targetEnds({ direction: 'cuts', cuts: [7], levels: ['clear', 'breach'], target: null })[0],
    ).toBeLessThan(7);
  });
});

describe('scaleEnds', () => {
  it('is a scale for any values: finite, rising, with all of them on it', () => {
    const value = fc.oneof(
      fc.constant(0),
      fc.double({ noNaN: true, min: -1e13, max: 1e13 }),
      fc.double({ noNaN: true, min: -1e-8, max: 1e-8 }),
    );
    fc.assert(
      fc.property(fc.array(value, { maxLength: 5 }), (values) => {
        const [low, high] = scaleEnds(null, values);
        expect(Number.isFinite(low) && Number.isFinite(high)).toBe(true);
        expect(high).toBeGreaterThan(low);
        for (const each of values) {
          expect(each).toBeGreaterThanOrEqual(low);
          expect(each).toBeLessThanOrEqual(high);
        }
      }),
    );
  });

  it('shows every limit and the value, on round numbers', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, min: -1e9, max: 1e9 }), (value) => {
        const [low, high] = scaleEnds(LOWER, [value]);
        expect(low).toBeLessThanOrEqual(Math.min(2.5, value));
        expect(high).toBeGreaterThanOrEqual(Math.max(4, value));
      }),
    );
    expect(scaleEnds(LOWER, [NaN])).toEqual([1.5, 5]);
    expect(scaleEnds(null, [])).toEqual([0, 1]);
    expect(scaleEnds(null, [7, 7])[0]).toBeLessThan(7);
    expect(scaleEnds(null, [0, 0])).toEqual([0, 1]);
  });
});

describe('levelSpans', () => {
  it('joins neighbours of one level and ends at now', () => {
    const spans = levelSpans(LOWER, [0, 10, 20, 30, 40], [1, 1, 5, null], 35);
    expect(spans).toEqual([
      { start: 0, end: 20, level: 'clear' },
      { start: 20, end: 30, level: 'breach' },
      { start: 30, end: 35, level: 'nodata' },
    ]);
    expect(timeByLevel(spans)).toEqual({ clear: 20, caution: 0, breach: 10, nodata: 5 });
  });

  it('counts two breaches at once only once', () => {
    const spans = worstSpans([
      { start: 0, end: 30, level: 'caution' },
      { start: 10, end: 20, level: 'breach' },
      { start: 15, end: 25, level: 'breach' },
      { start: 50, end: 60, level: 'breach' },
    ]);
    expect(spans).toEqual([
      { start: 0, end: 10, level: 'caution' },
      { start: 10, end: 25, level: 'breach' },
      { start: 25, end: 30, level: 'caution' },
      { start: 50, end: 60, level: 'breach' },
    ]);
  });
});
