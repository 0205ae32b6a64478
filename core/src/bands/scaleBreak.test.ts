import fc from 'fast-check';
import { breachWindow } from './breachWindow';
import { findBreak } from './scaleBreak';

describe('findBreak', () => {
  it('finds the empty stretch between values that lie far apart', () => {
    expect(findBreak([1, 2, 3, 90, 95, NaN])).toEqual({ below: 3, above: 90 });
  });

  it.each([[[]], [[4]], [[1, 9]], [[5, 5, 5]], [[1, 2, 3, 4]], [[0, 40, 60, 100]]])(
    'finds none in %j',
    (values) => {
      expect(findBreak(values)).toBeNull();
    },
  );

  it('leaves out more than half of the range, and no value', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ noNaN: true, min: -1e6, max: 1e6 }), { maxLength: 40 }), (values) => {
        const found = findBreak(values);
        if (!found) return;
        const range = Math.max(...values) - Math.min(...values);
        expect(found.above - found.below).toBeGreaterThan(range / 2);
        expect(values.some((value) => value > found.below && value < found.above)).toBe(false);
        expect(values).toContain(found.below);
        expect(values).toContain(found.above);
      }),
    );
  });
});

describe('breachWindow', () => {
  const H = 3_600_000;
  const breach = (from: number, to: number) => ({ start: from * H, end: to * H, level: 'breach' as const });
  const spans = [
    breach(10, 11),
    { start: 15 * H, end: 16 * H, level: 'caution' as const },
    breach(20, 24),
    breach(2, 3),
  ];

  it('goes to the next breach and back to the one before, with it in the middle', () => {
    const first = breachWindow(spans, { start: 4 * H, end: 6 * H }, 1)!;
    expect(first).toEqual({ start: 9 * H, end: 12 * H });
    const second = breachWindow(spans, first, 1)!;
    expect(second).toEqual({ start: 16 * H, end: 28 * H });
    expect(breachWindow(spans, second, -1)).toEqual(first);
    expect(breachWindow(spans, second, 1)).toBeNull();
    expect(breachWindow([], first, -1)).toBeNull();
  });
});
