import fc from 'fast-check';
import { bandOfJudge } from '../indicators/bandOfTarget';
import {
  customThresholdsOf,
  withThresholdAdded,
  withThresholdAt,
  withThresholdRemoved,
  withSectionLevel,
} from './customThresholds';
import {
  checkBand,
  distanceOf,
  levelOf,
  MAX_THRESHOLDS,
  SEVERITY,
  sectorsOf,
  VALUE_LEVELS,
} from './targetBand';
import type { CustomThresholds, TargetBand } from './targetBand';

const band = (own: CustomThresholds, target: number | null = null): TargetBand => ({
  direction: 'cuts',
  ...own,
  target,
});

/** A press that must be warm, may be hot and must not be cold: four thresholds, five ranges. */
const PRESS: CustomThresholds = {
  cuts: [150, 160, 175, 185],
  levels: ['breach', 'caution', 'clear', 'caution', 'breach'],
};

const own = fc
  .uniqueArray(fc.integer({ min: -100, max: 100 }), { minLength: 1, maxLength: MAX_THRESHOLDS })
  .chain((raw) =>
    fc.record({
      cuts: fc.constant([...raw].sort((a, b) => a - b)),
      levels: fc.array(fc.constantFrom(...VALUE_LEVELS), {
        minLength: raw.length + 1,
        maxLength: raw.length + 1,
      }),
    }),
  );

describe('custom thresholds', () => {
  it('give a value on a cut the better level of the two parts', () => {
    expect([149.9, 150, 160, 175, 175.1, 185, 185.1].map((v) => levelOf(band(PRESS), v))).toEqual([
      'breach',
      'caution',
      'clear',
      'clear',
      'caution',
      'caution',
      'breach',
    ]);
    fc.assert(
      fc.property(own, (each) => {
        each.cuts.forEach((cut, i) => {
          const sides = [each.levels[i], each.levels[i + 1]];
          const best = sides.reduce((a, b) => (SEVERITY[b] > SEVERITY[a] ? b : a));
          expect(levelOf(band(each), cut)).toBe(best);
        });
      }),
    );
  });

  it('cover a scale without gaps, each part with the level of its middle', () => {
    fc.assert(
      fc.property(own, (each) => {
        const sectors = sectorsOf(band(each), -200, 200);
        expect(sectors[0].from).toBe(-200);
        expect(sectors[sectors.length - 1].to).toBe(200);
        for (const { from, to, level } of sectors) expect(levelOf(band(each), (from + to) / 2)).toBe(level);
      }),
    );
  });

  it('tell the way to the nearest better part, and none where nothing is better', () => {
    expect(distanceOf(band(PRESS), 190)).toEqual({ by: 5, words: 'over limit' });
    expect(distanceOf(band(PRESS), 155)).toEqual({ by: 5, words: 'under Clear' });
    expect(distanceOf(band(PRESS, 170), 172)).toEqual({ by: 2, words: 'over target' });
    expect(distanceOf(band({ cuts: [1], levels: ['breach', 'breach'] }), 3)).toBeNull();
  });

  it('begin as what the other kinds of band say: the same level for every value', () => {
    const bands: TargetBand[] = [
      { direction: 'lower', caution: 3, breach: 4, target: null },
      { direction: 'higher', caution: 4, breach: 4, target: null },
      { direction: 'inside', breachLow: 1, clearLow: 2, clearHigh: 5, breachHigh: 5, target: null },
    ];
    for (const each of bands) {
      for (let v = 0; v <= 6; v += 0.25)
        expect(levelOf(band(customThresholdsOf(each)), v)).toBe(levelOf(each, v));
    }
  });

  it('are added without changing any level, up to five, and taken away again', () => {
    let grown: CustomThresholds = { cuts: [10], levels: ['clear', 'breach'] };
    for (let i = 0; i < 7; i++) {
      grown = withThresholdAdded(grown, 0, 20);
      expect(() => checkBand(band(grown))).not.toThrow();
      for (let v = 0; v <= 20; v += 0.5) expect(levelOf(band(grown), v)).toBe(v <= 10 ? 'clear' : 'breach');
    }
    expect(grown.cuts).toHaveLength(MAX_THRESHOLDS);
    expect(withThresholdRemoved(PRESS, 1)).toEqual({
      cuts: [150, 175, 185],
      levels: ['breach', 'caution', 'caution', 'breach'],
    });
    expect(withThresholdRemoved({ cuts: [1], levels: ['clear', 'breach'] }, 0).cuts).toEqual([1]);
    expect(withSectionLevel(PRESS, 0, 'caution').levels[0]).toBe('caution');
  });

  it('are refused out of order, too many, or with levels that do not fit', () => {
    expect(() => checkBand(band(withThresholdAt(PRESS, 1, 140)))).toThrow(
      'Threshold 2 must be at least threshold 1 (150), got 140.',
    );
    expect(() => checkBand(band({ cuts: [1, 2, 3, 4, 5, 6], levels: [] }))).toThrow('1 to 5');
    expect(() => checkBand(band({ cuts: [1], levels: ['clear'] }))).toThrow('one level more');
  });

  it('in percent of a target rise with it also where it is negative, and meet at a target of zero', () => {
    const judge = {
      kind: 'targetCuts',
      cuts: [85, 95, 105],
      levels: ['breach', 'caution', 'clear', 'caution'],
    } as const;
    expect(bandOfJudge(judge, 200)).toMatchObject({ cuts: [170, 190, 210], target: 200 });
    expect(bandOfJudge(judge, -200)).toMatchObject({ cuts: [-230, -210, -190] });
    expect(bandOfJudge(judge, null)).toBeNull();
    const atZero = bandOfJudge(judge, 0)!;
    expect([-1, 0, 1].map((v) => levelOf(atZero, v))).toEqual(['breach', 'clear', 'caution']);
  });
});
