import Decimal from 'decimal.js';
import fc from 'fast-check';
import { levelOf, type TargetBand } from '../bands/targetBand';
import { runCondition } from '../alarms/runCondition';
import { above, makeCondition } from '../testing/makeCondition';
import { AMOUNT, MINUTE, minutely } from '../testing/makeSeries';
import { summarise } from '../summary/summarise';
import { evaluate } from '../derive/evaluate';
import { parseExpression } from '../derive/parseExpression';
import { difference, isAbove, isBelow } from './decimal';

/* Against decimal.js, which computes with decimals as they are written. */

const decimal = fc
  .record({ units: fc.integer({ min: -9_999_999, max: 9_999_999 }), digits: fc.integer({ min: 0, max: 4 }) })
  .map(({ units, digits }) => new Decimal(units).div(new Decimal(10).pow(digits)));
const decimals = fc.array(decimal, { minLength: 1, maxLength: 12 });

describe('limits', () => {
  it.each([
    [0.1 + 0.2, 0.3],
    [1.1 * 3, 3.3],
    [0.7 + 0.1, 0.8],
    [4.35 * 100, 435],
  ])('%d is on the limit %d', (value, limit) => {
    expect(isAbove(value, limit)).toBe(false);
  });

  it('judge sums of decimals as exact arithmetic does', () => {
    fc.assert(
      fc.property(decimals, fc.integer({ min: -2, max: 2 }), (terms, off) => {
        const sum = terms.reduce((a, b) => a.plus(b), new Decimal(0));
        const limit = sum.plus(new Decimal(off).div(10_000));
        const value = terms.reduce((total, each) => total + each.toNumber(), 0);
        const largest = Math.max(...terms.map((each) => Math.abs(each.toNumber())));
        // A sum of nearly equal numbers keeps the error of the large ones: our sums of samples are exact.
        fc.pre(Math.abs(value) > largest * 1e-3);
        expect(isAbove(value, limit.toNumber())).toBe(sum.gt(limit));
        expect(isBelow(value, limit.toNumber())).toBe(sum.lt(limit));
        const band: TargetBand = {
          direction: 'lower',
          caution: limit.toNumber(),
          breach: limit.toNumber(),
          target: null,
        };
        expect(levelOf(band, value)).toBe(sum.gt(limit) ? 'breach' : 'clear');
      }),
    );
  });

  it('judge sums of samples, also those that nearly cancel', () => {
    fc.assert(
      fc.property(decimals, (terms) => {
        const series = minutely(terms.map((each) => each.toNumber()));
        const window = { start: 0, end: terms.length * MINUTE };
        const { value } = summarise(series, 'sum', AMOUNT, window, window.end);
        const exact = terms.reduce((a, b) => a.plus(b), new Decimal(0)).toNumber();
        expect(isAbove(value!, exact) || isBelow(value!, exact)).toBe(false);
      }),
    );
  });

  it('judge differences as exact arithmetic does', () => {
    fc.assert(
      fc.property(decimal, decimal, (a, b) => {
        const by = difference(a.toNumber(), b.toNumber());
        const exact = a.minus(b).toNumber();
        expect(isAbove(by, exact) || isBelow(by, exact)).toBe(false);
      }),
    );
    const of = (name: string) => Float64Array.of({ a: 0.1, b: 0.2, c: 0.3 }[name]!);
    const values = { size: 1, of, hours: Float64Array.of(1), amounts: new Set<string>() };
    expect(evaluate(parseExpression('a + b - c'), values)[0]).toBe(0);
    expect(evaluate(parseExpression('a + b == c'), values)[0]).toBe(1);
    expect(evaluate(parseExpression('if(a + b > c, 1, 0)'), values)[0]).toBe(0);
  });

  it('of an alarm rule hold for its return too', () => {
    // Over 10 with a deadband of 0.3: back at 9.7, which is 10 less 0.3 in decimals only.
    const kinds = (values: number[], limit: number, deadband: number): string =>
      runCondition(makeCondition(above(limit, deadband)), minutely(values))
        .changes.map(({ kind }) => kind)
        .join(' ');
    expect(kinds([10.1, 9.7], 10, 0.3)).toBe('raise return');
    expect(kinds([10.1, 9.71], 10, 0.3)).toBe('raise');
    expect(kinds([0.1 + 0.2], 0.3, 0)).toBe('');
    expect(kinds([0.31, 0.1 * 2], 0.3, 0.1)).toBe('raise return');
    const outside = makeCondition({ kind: 'outside', low: 0.3, high: 1_000_000.7, deadband: 0.2 });
    const values = [0.1 + 0.2, 1_000_000.8, 1_000_000.6, 1_000_000.5];
    expect(runCondition(outside, minutely(values)).changes.map(({ t }) => t / MINUTE)).toEqual([1, 3]);
    const rise = makeCondition({
      ...{ kind: 'change', side: 'rise', limit: 0.1, inPercent: false },
      ...{ overMs: MINUTE, deadband: 0 },
    });
    expect(runCondition(rise, minutely([100_000, 100_000.1, 100_000.3])).changes).toHaveLength(1);
  });
});
