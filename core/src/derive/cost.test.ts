import fc from 'fast-check';
import { mergeTimes } from '../series/mergeTimes';
import { checkCost, MAX_OPERATIONS, operationsPerStep } from './cost';
import { parseExpression } from './parseExpression';

const nested = (name: string, n: number, steps: number): string =>
  `${`${name}(`.repeat(n)}a${`, ${steps})`.repeat(n)}`;

describe('the cost of an expression', () => {
  it('counts every part once and a rolling mean by what it looks back', () => {
    expect(operationsPerStep(parseExpression('a'))).toBe(1);
    expect(operationsPerStep(parseExpression('a + 2 * b'))).toBe(5);
    expect(operationsPerStep(parseExpression('rolling(a, 500)'))).toBe(502);
    expect(operationsPerStep(parseExpression(nested('rolling', 9, 100)))).toBe(910);
  });

  it('is refused before it is paid, saying how many steps it can be worked out for', () => {
    const dear = parseExpression(nested('rolling', 9, 100));
    expect(() => checkCost(dear, 32_000)).not.toThrow();
    expect(() => checkCost(dear, 40_000)).toThrow(
      /910 operations a step.*at most 32,967 steps at once; these are 40,000/,
    );
    expect(() => checkCost(parseExpression('a'), MAX_OPERATIONS)).not.toThrow();
  });

  it('is bounded while reading: it may look back 1,000 steps in all', () => {
    expect(() => parseExpression(nested('rolling', 40, 1000))).toThrow(
      /looks back 39,960 steps.*at most 1,000/,
    );
    expect(() => parseExpression(nested('lag', 2, 500))).not.toThrow();
    expect(() => parseExpression('lag(a, 1.5)')).toThrow(/whole number of steps/);
  });
});

describe('merged times', () => {
  it('are every time of any column, once and in order', () => {
    const column = fc.uniqueArray(fc.integer({ min: -50, max: 50 }), { maxLength: 30 });
    fc.assert(
      fc.property(fc.array(column, { maxLength: 6 }), (columns) => {
        const merged = mergeTimes(columns.map((each) => Float64Array.from(each).sort()));
        expect([...merged]).toEqual([...new Set(columns.flat())].sort((a, b) => a - b));
      }),
    );
  });
});
