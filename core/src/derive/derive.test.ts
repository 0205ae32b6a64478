import fc from 'fast-check';
import { evaluate } from './evaluate';
import { checkUnits } from './checkUnits';
import { refuseCircle, toChosenUnit } from './derivedMetric';
import { namesIn, parseExpression, stepsBack } from './parseExpression';
import { writeUnit } from '../units/unit';

const values = (columns: Record<string, number[]>, amounts: string[] = [], hours = 1) => {
  const size = Object.values(columns)[0]?.length ?? 1;
  return {
    size,
    of: (name: string) => Float64Array.from(columns[name]),
    hours: new Float64Array(size).fill(hours),
    amounts: new Set(amounts),
  };
};
const run = (
  text: string,
  columns: Record<string, number[]> = { x: [0] },
  amounts: string[] = [],
  hours = 1,
) => Array.from(evaluate(parseExpression(text), values(columns, amounts, hours)));

describe('parseExpression', () => {
  it('agrees with arithmetic as JavaScript does it, for any expression of numbers', () => {
    // Each with its text and the same thing for JavaScript, where a division by zero is missing too.
    const number = fc.integer({ min: -9, max: 9 }).map((n) => {
      const text = n < 0 ? `(${n})` : String(n);
      return { text, script: text };
    });
    const { tree } = fc.letrec<{ tree: { text: string; script: string } }>((tie) => ({
      tree: fc.oneof(
        { maxDepth: 4 },
        number,
        fc.tuple(tie('tree'), fc.constantFrom('+', '-', '*', '/'), tie('tree')).map(([a, sign, b]) => ({
          text: `(${a.text} ${sign} ${b.text})`,
          script: sign === '/' ? `divide(${a.script}, ${b.script})` : `(${a.script} ${sign} ${b.script})`,
        })),
      ),
    }));
    const divide = (a: number, b: number): number => (b === 0 ? NaN : a / b);
    fc.assert(
      fc.property(tree, ({ text, script }) => {
        const expected = new Function('divide', `return ${script}`)(divide) as number;
        const [got] = run(text);
        if (Number.isNaN(expected)) expect(got).toBeNaN();
        else expect(got).toBeCloseTo(expected, 9);
      }),
      { examples: [[{ text: '(0 / ((0 - 1) / 0))', script: 'divide(0, divide(0 - 1, 0))' }]] },
    );
  });

  it('names what it uses, and takes the signs people paste', () => {
    expect(namesIn(parseExpression('gas ÷ weight × 100 − lag(gas, 1)'))).toEqual(['gas', 'weight']);
    expect(run('6 ÷ 2 × 3 − 1')).toEqual([8]);
    expect(run('2 > 1 ? 5 : 6')).toEqual([5]);
  });

  it.each([
    ['', 'empty'],
    ['a +', 'at character'],
    ['a b', 'a sign between its parts is missing'],
    ['"text"', 'Only numbers and names'],
    ['a.constructor', 'Only arithmetic'],
    ['this', 'Only arithmetic'],
    ['a[0]', 'Only arithmetic'],
    ['alert(1)', 'There is no function "alert"'],
    ['constructor(1)', 'There is no function "constructor"'],
    ['abs()', 'abs is written abs(x)'],
    ['a ^ b', 'The sign ^ cannot be used'],
    ['a & b', 'The sign & cannot be used'],
    ['!a', 'The sign ! cannot be used'],
    ['lag(a, b)', 'whole number of steps'],
  ])('refuses %s and says why', (text, reason) => {
    expect(() => {
      stepsBack(parseExpression(text));
    }).toThrow(reason);
  });

  it('refuses 10,000 parts, and brackets too deep, without trying', () => {
    expect(() => parseExpression(Array(10_000).fill('a').join('+'))).toThrow('at most 4000 characters');
    expect(() => parseExpression(Array(1500).fill('a').join('+'))).toThrow('too deeply nested');
    expect(() =>
      parseExpression(
        `max(${Array(12)
          .fill(`max(${Array(12).fill('max(a,b,c)').join(',')})`)
          .join(',')})`,
      ),
    ).toThrow('at most 400 parts');
    expect(() => parseExpression(`${'('.repeat(1900)}1${')'.repeat(1900)}`)).toThrow('at most 40 deep');
    expect(() => parseExpression(`${'-'.repeat(3000)}1`)).toThrow();
  });
});

describe('evaluate', () => {
  it('keeps what is missing missing, and does not divide by zero', () => {
    expect(run('a + b', { a: [1, NaN, 3], b: [1, 1, NaN] })).toEqual([2, NaN, NaN]);
    expect(run('a / b', { a: [1, 1], b: [2, 0] })).toEqual([0.5, NaN]);
    expect(run('if(a > 1, a, 0)', { a: [1, 2, NaN] })).toEqual([0, 2, NaN]);
  });

  it('looks back: difference, rolling mean, lag, running total', () => {
    const x = [1, 3, 6, 10];
    expect(run('difference(x)', { x })).toEqual([NaN, 2, 3, 4]);
    expect(run('rolling(x, 2)', { x })).toEqual([NaN, 2, 4.5, 8]);
    expect(run('lag(x, 2)', { x })).toEqual([NaN, NaN, 1, 3]);
    expect(run('cumulative(x)', { x: [1, NaN, 2] })).toEqual([1, NaN, 3]);
    expect(stepsBack(parseExpression('lag(rolling(x, 3), 2)'))).toBe(4);
  });

  it('takes a rate of an amount by its period, of others by the change', () => {
    expect(run('rate(x)', { x: [10, 20] }, ['x'], 2)).toEqual([5, 10]);
    expect(run('rate(x)', { x: [10, 20] }, [], 2)).toEqual([NaN, 5]);
  });
});

describe('units of an expression', () => {
  const units: Record<string, string> = {
    gas: 'kWh',
    heat: 'MJ',
    weight: 'kg',
    water: 'm³',
    area: 'm²',
    none: '',
  };
  const unit = (text: string): string =>
    writeUnit(checkUnits(parseExpression(text), (name) => units[name]).unit);

  it('shows what the person chose: kWh ÷ kg is kWh/kg, and kWh per m³ stays that', () => {
    expect(unit('gas / weight')).toBe('kWh/kg');
    expect(unit('gas / water')).toBe('kWh/m³');
    expect(unit('gas / weight * weight')).toBe('kWh');
    expect(unit('rate(gas) / area')).toBe('kWh/(h·m²)');
    expect(unit('max(gas, 5) + 3')).toBe('kWh');
    expect(unit('sqrt(area * area)')).toBe('m²');
  });

  it('refuses to add what measures different things or is of different size, and says by how much', () => {
    expect(() => unit('gas + weight')).toThrow('kWh and kg measure different things');
    expect(() => unit('gas - heat')).toThrow('Multiply the second by 0.277778');
    expect(() => unit('if(gas > weight, 1, 2)')).toThrow('different things');
  });

  it('turns results into the unit that was chosen', () => {
    const to = (text: string, chosen: string): number =>
      toChosenUnit(
        checkUnits(parseExpression(text), (name) => units[name]),
        chosen,
      ).factor;
    expect(to('gas / weight', 'MJ/kg')).toBeCloseTo(3.6, 12);
    expect(to('gas / weight', 'kWh/t')).toBeCloseTo(1000, 9);
    expect(to('gas / gas', '%')).toBeCloseTo(100, 12);
    expect(to('gas / gas * 100', '%')).toBe(1);
    expect(to('none * 2', 'loads')).toBe(1);
    expect(() => to('gas / weight', 'm³')).toThrow('comes out in kWh/kg, which is not m³');
  });
});

describe('refuseCircle', () => {
  it('names the circle', () => {
    const uses: Record<string, string[]> = { a: ['b'], b: ['c', 'd'], c: ['a'], d: [] };
    expect(() =>
      refuseCircle(
        'a',
        (id) => uses[id],
        (id) => id.toUpperCase(),
      ),
    ).toThrow('A → B → C → A');
    expect(() =>
      refuseCircle(
        'b',
        (id) => (id === 'b' ? ['d', 'd'] : []),
        (id) => id,
      ),
    ).not.toThrow();
  });
});
