import { BeaconError } from '../errors';
import { conversion, isTemperatureDifference, writeUnit, zeroBelow, type Unit } from '../units/unit';
import type { Node } from './parseExpression';

/*
 * Temperatures have a zero point that depends on their scale. An expression that adds and scales temperatures
 * is one temperature again if their coefficients add up to 1 (a mean), and a difference if they add up to 0;
 * only then it can be converted from one scale to another.
 */

/** Sums of the coefficients of what an expression adds up. */
export interface Weights {
  /** Of temperatures with an arbitrary zero (°C, °F). */
  readonly fixed: number;
  /** Of temperatures in K, which may be meant as differences. */
  readonly kelvin: number;
  /** Of plain numbers, which may be meant as either too. */
  readonly number: number;
  /** How many temperatures were added up. */
  readonly terms: number;
}

export const NO_WEIGHTS: Weights = { fixed: 0, kelvin: 0, number: 0, terms: 0 };

/** The weights of a difference of temperatures. */
export const DIFFERENCE: Weights = { ...NO_WEIGHTS, terms: 1 };

/** The weights of a metric or a constant in a unit. */
export function weightsOfUnit(unit: Unit): Weights {
  if (isTemperatureDifference(unit)) return DIFFERENCE;
  const below = zeroBelow(unit);
  if (below === null) return NO_WEIGHTS;
  return below === 0 ? { ...DIFFERENCE, kelvin: 1 } : { ...DIFFERENCE, fixed: 1 };
}

export const addWeights = (a: Weights, b: Weights, sign: 1 | -1): Weights => ({
  fixed: a.fixed + sign * b.fixed,
  kelvin: a.kelvin + sign * b.kelvin,
  number: a.number + sign * b.number,
  terms: a.terms + b.terms,
});

export const scaleWeights = (a: Weights, by: number): Weights => ({
  ...a,
  fixed: a.fixed * by,
  kelvin: a.kelvin * by,
  number: a.number * by,
});

const near = (a: number, b: number): boolean => Math.abs(a - b) < 1e-9;

/** Every sum that the weights may have, as K and numbers are read: 1 = a temperature, 0 = a difference. */
function meanings({ fixed, kelvin, number }: Weights): (0 | 1)[] {
  const sums = [fixed, fixed + kelvin, fixed + number, fixed + kelvin + number];
  return ([1, 0] as const).filter((wanted) => sums.some((sum) => near(sum, wanted)));
}

/** Whether an expression is a temperature or a difference at all. */
export const hasMeaning = (weights: Weights): boolean => meanings(weights).length > 0;

/**
 * Whether an expression is a temperature (1) or a difference (0).
 *
 * @param asTemperature how to read what may be either: alone, K is a temperature.
 * @throws {BeaconError} BAD_INPUT for sums that are neither.
 */
export function meaningOf(weights: Weights, unit: Unit, asTemperature = true): 0 | 1 {
  const { fixed, kelvin, number } = weights;
  // A plain number beside temperatures is a difference unless only the other reading has a meaning.
  const plain = meanings({ fixed, kelvin, number: 0, terms: 0 });
  const possible = plain.length > 0 ? plain : meanings({ fixed, kelvin, number, terms: 0 });
  if (possible.length === 0) {
    throw refused(
      `This adds up temperatures in ${writeUnit(unit)} to ${trimmed(fixed + kelvin)} of one. Take a difference, or a mean such as (a + b) / 2.`,
    );
  }
  if (possible.length === 1) return possible[0];
  return asTemperature ? 1 : 0;
}

/**
 * One side of a sum or comparison in the scale of the other: °F beside °C is converted.
 *
 * @param kelvinIsTemperature how K is read, if that is what `from` is.
 */
export function inScaleOf(
  to: Unit,
  from: Unit,
  { fixed, kelvin }: Weights,
  kelvinIsTemperature: boolean,
  node: Node,
): Node {
  const [toBelow, fromBelow] = [zeroBelow(to), zeroBelow(from)];
  const factor = conversion(from, to)!;
  if (toBelow === null || fromBelow === null) return scaled(node, factor);
  const weight = fixed + (kelvinIsTemperature ? kelvin : 0);
  return plus(scaled(node, factor), weight * (fromBelow * factor - toBelow));
}

/**
 * Whether K added to (or subtracted from) another scale is a temperature: the reading that has a meaning.
 *
 * @param both the weights of both sides together. @throws {BeaconError} BAD_INPUT if both readings have one.
 */
export function isKelvinAddedTemperature(to: Unit, both: Weights): boolean {
  if (both.kelvin === 0) return false;
  const readings = meanings({ ...both, number: 0 });
  if (readings.length > 1) {
    throw refused(
      `K beside ${writeUnit(to)} may be a temperature or a difference. Give the metric the unit ΔK if it is a difference, otherwise turn it into ${writeUnit(to)} first.`,
    );
  }
  return readings.length === 1 && !near(both.fixed, readings[0]);
}

/** Whether K compared with another scale is a temperature: what the other side is. */
export function isKelvinComparedTemperature(other: Weights): boolean {
  return meanings({ ...other, number: 0 }).includes(1);
}

/**
 * How results are brought into another unit: value × factor + offset.
 *
 * @throws {BeaconError} BAD_INPUT if they are neither temperatures nor differences.
 */
export function toScale(found: Unit, wanted: Unit, weights: Weights): { factor: number; offset: number } {
  const factor = conversion(found, wanted)!;
  const [from, to] = [zeroBelow(found), zeroBelow(wanted)];
  if (weights.terms === 0 || from === null) return { factor, offset: 0 };
  const meaning = meaningOf(weights, found, to !== null);
  if (to === null && meaning === 1) {
    throw refused(
      `The expression is a temperature in ${writeUnit(found)}, and ${writeUnit(wanted)} is a difference.`,
    );
  }
  return { factor, offset: meaning === 1 ? from * factor - to! : 0 };
}

/** Refuses a temperature where only a difference, or a temperature in K, makes sense: products, quotients, roots. */
export function needDifference(unit: Unit, weights: Weights, what: string): void {
  if (weights.terms === 0 || near(weights.fixed, 0) || meanings(weights).includes(0)) return;
  throw refused(
    `${what} a temperature in ${writeUnit(unit)} has no meaning: its zero is arbitrary. Use a difference of two temperatures, or K.`,
  );
}

/** Refuses a temperature beside a difference, where both must be the same. */
export function needSameMeaning(left: Unit, a: Weights, b: Weights, where: string): void {
  if (a.terms === 0 || b.terms === 0) return;
  const [x, y] = [meanings({ ...a, number: 0 }), meanings({ ...b, number: 0 })];
  if (x.some((each) => y.includes(each))) return;
  throw refused(
    `${where} puts a temperature in ${writeUnit(left)} beside a difference of temperatures; they cannot be compared.`,
  );
}

export const scaled = (node: Node, factor: number): Node =>
  near(factor, 1)
    ? node
    : { kind: 'binary', operator: '*', left: node, right: { kind: 'number', value: factor } };

const plus = (node: Node, offset: number): Node =>
  near(offset, 0)
    ? node
    : { kind: 'binary', operator: '+', left: node, right: { kind: 'number', value: offset } };

const trimmed = (x: number): string => String(Number(x.toFixed(6)));

const refused = (message: string): BeaconError => new BeaconError('BAD_INPUT', message, 'expression');
