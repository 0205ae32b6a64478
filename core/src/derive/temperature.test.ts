import fc from 'fast-check';
import { writeUnit } from '../units/unit';
import { checkUnits } from './checkUnits';
import { toChosenUnit } from './derivedMetric';
import { evaluate } from './evaluate';
import { parseExpression } from './parseExpression';

/* Conversions: NIST SP 811 (2008), B.8 and B.9: t/°C = (t/°F − 32)/1.8, T/K = t/°C + 273.15; from memory. */

const UNITS: Readonly<Record<string, string>> = {
  supply: '°C',
  back: '°C',
  oven: '°F',
  plate: '°F',
  kelvin: 'K',
  other: 'K',
  spread: 'ΔK',
  step: 'Δ°F',
  flow: 'kg/h',
};

/** The value of an expression in a chosen unit. */
function valueOf(expression: string, chosen: string, values: Readonly<Record<string, number>>): number {
  const checked = checkUnits(parseExpression(expression), (name) => UNITS[name]);
  const { factor, offset } = toChosenUnit(checked, chosen);
  const of = (name: string) => Float64Array.of(values[name]);
  const [value] = evaluate(checked.node, { size: 1, of, hours: Float64Array.of(1), amounts: new Set() });
  return value * factor + offset;
}
const unitOf = (expression: string): string =>
  writeUnit(checkUnits(parseExpression(expression), (name) => UNITS[name]).unit);

describe('temperatures', () => {
  it.each([
    ['boiling water', 'oven', '°C', { oven: 212 }, 100],
    ['freezing water', 'supply', '°F', { supply: 0 }, 32],
    ['where both scales meet', 'oven', '°C', { oven: -40 }, -40],
    ['absolute zero', 'kelvin', '°C', { kelvin: 0 }, -273.15],
    ['in kelvin', 'supply', 'K', { supply: 26.85 }, 300],
    ['a difference', 'supply - back', 'K', { supply: 80, back: 60 }, 20],
    ['a difference in other degrees', 'supply - back', 'Δ°F', { supply: 80, back: 60 }, 36],
    ['a difference shown in °C, as it always was', 'supply - back', '°C', { supply: 80, back: 60 }, 20],
    ['a difference of two scales', 'supply - oven', 'Δ°C', { supply: 100, oven: 32 }, 100],
    ['a mean', '(supply + back) / 2', '°F', { supply: 10, back: 20 }, 59],
    ['a mean of two scales', '(supply + oven) / 2', '°C', { supply: 10, oven: 68 }, 15],
    ['a temperature and a difference', 'supply + spread', '°C', { supply: 60, spread: 5 }, 65],
    ['a difference first', 'step + supply', '°C', { step: 18, supply: 60 }, 70],
    ['K added can only be a difference', 'supply + kelvin', '°C', { supply: 60, kelvin: 5 }, 65],
    ['less a number', 'oven - 32', '°C', { oven: 64 }, 0],
    ['above a reference', '(200 - supply) * flow', '', { supply: 180, flow: 2 }, 40],
    ['the higher of two scales', 'max(supply, oven)', '°C', { supply: 90, oven: 212 }, 100],
    ['compared over scales', 'if(supply > oven, 1, 0)', '', { supply: 50, oven: 100 }, 1],
    ['heat of a flow', '4.186 * flow * (supply - back)', '', { flow: 100, supply: 80, back: 60 }, 8372],
  ])('%s: %s in %s', (_, expression, chosen, values, expected) => {
    expect(valueOf(expression, chosen, values)).toBeCloseTo(expected, 9);
  });

  it('of which one is taken from the other are a difference in its own unit', () => {
    expect(unitOf('supply - back')).toBe('Δ°C');
    expect(unitOf('difference(oven)')).toBe('Δ°F');
    expect(unitOf('(supply + back) / 2')).toBe('°C');
    expect(unitOf('max(supply, back) - supply')).toBe('Δ°C');
  });

  it.each([
    ['supply + back', 'adds up temperatures in °C to 2 of one'],
    ['supply - spread - back - back', 'adds up temperatures'],
    ['supply * flow', 'Multiplying a temperature in °C has no meaning'],
    ['supply / back', 'Dividing a temperature in °C has no meaning'],
    ['flow / oven', 'Dividing a temperature in °F'],
    ['sqrt(supply)', 'A root of a temperature'],
    ['cumulative(oven)', 'A running total of a temperature'],
    ['supply - kelvin', 'may be a temperature or a difference'],
    ['max(supply, spread)', 'beside a difference'],
    ['if(supply > supply - back, 1, 0)', 'beside a difference'],
  ])('refuses %s', (expression, words) => {
    expect(() => unitOf(expression)).toThrow(words);
  });

  it('are not shown in a unit of differences, nor a scaled one on another scale', () => {
    expect(() => valueOf('supply', 'Δ°C', { supply: 20 })).toThrow('is a temperature in °C');
    expect(() => valueOf('supply * 1.02', '°F', { supply: 20 })).toThrow('1.02 of one');
    expect(valueOf('supply * 1.02', '°C', { supply: 20 })).toBeCloseTo(20.4, 12);
  });

  it('give the same, whatever scale each was measured and is shown in', () => {
    const toKelvin = {
      '°C': (t: number) => t + 273.15,
      '°F': (t: number) => (t + 459.67) / 1.8,
      K: (t: number) => t,
    };
    const scale = fc.constantFrom('°C' as const, '°F' as const);
    const degrees = fc.integer({ min: -100, max: 500 });
    fc.assert(
      fc.property(scale, scale, scale, degrees, degrees, (ofA, ofB, shown, a, b) => {
        const check = (expression: string, expected: number, unit: string): void => {
          const checked = checkUnits(parseExpression(expression), (name) => (name === 'a' ? ofA : ofB));
          const { factor, offset } = toChosenUnit(checked, unit);
          const of = (name: string) => Float64Array.of(name === 'a' ? a : b);
          const [value] = evaluate(checked.node, {
            size: 1,
            of,
            hours: Float64Array.of(1),
            amounts: new Set(),
          });
          expect(value * factor + offset).toBeCloseTo(expected, 6);
        };
        const [x, y] = [toKelvin[ofA](a), toKelvin[ofB](b)];
        const back = (t: number): number => (shown === '°C' ? t - 273.15 : t * 1.8 - 459.67);
        check('a', back(x), shown);
        check('0.25 * a + 0.75 * b', back(0.25 * x + 0.75 * y), shown);
        check('max(a, b)', back(Math.max(x, y)), shown);
        check('a - b', shown === '°C' ? x - y : (x - y) * 1.8, `Δ${shown}`);
      }),
    );
  });
});
