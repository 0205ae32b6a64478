import { BeaconError } from '../errors';
import {
  conversion,
  NO_UNIT,
  per,
  power,
  readUnit,
  sameDimension,
  times,
  unitOfDifference,
  writeUnit,
  zeroBelow,
  type Unit,
} from '../units/unit';
import type { Node } from './parseExpression';
import {
  addWeights,
  DIFFERENCE,
  hasMeaning,
  inScaleOf,
  isKelvinAddedTemperature,
  isKelvinComparedTemperature,
  meaningOf,
  needDifference,
  needSameMeaning,
  NO_WEIGHTS,
  scaled,
  scaleWeights,
  weightsOfUnit,
  type Weights,
} from './temperature';

/** An expression with its unit. */
export interface CheckedExpression {
  /** With temperatures of other scales converted to those they are put together with. */
  readonly node: Node;
  /** null = a plain number. */
  readonly unit: Unit;
  readonly weights: Weights;
}

/** `unit` null = a bare number, compatible with any unit. */
interface Found {
  readonly node: Node;
  readonly unit: Unit | null;
  readonly weights: Weights;
}

/**
 * Checks the units of an expression. Sums, differences and comparisons need equal units; products and quotients
 * make new ones, written with the names the person chose. Of temperatures, two give a difference when subtracted
 * and °C and °F are converted to one another.
 *
 * @param unitOf the unit of a name, as written.
 * @throws {BeaconError} BAD_INPUT naming what does not go together.
 */
export function checkUnits(node: Node, unitOf: (name: string) => string): CheckedExpression {
  const found = check(node, unitOf);
  const { weights } = found;
  const unit = found.unit ?? NO_UNIT;
  if (weights.terms === 0 || zeroBelow(unit) === null) return { node: found.node, unit, weights };
  // One temperature times a number is a correction on its own scale; several must make sense together.
  if (weights.terms === 1 && !hasMeaning(weights)) return { node: found.node, unit, weights };
  return meaningOf(weights, unit) === 1
    ? { node: found.node, unit, weights }
    : { node: found.node, unit: readUnit(unitOfDifference(writeUnit(unit))), weights: NO_WEIGHTS };
}

function check(node: Node, unitOf: (name: string) => string): Found {
  const of = (each: Node): Found => check(each, unitOf);
  switch (node.kind) {
    case 'number':
      return { node, unit: null, weights: { ...NO_WEIGHTS, number: 1 } };
    case 'name': {
      const unit = readUnit(unitOf(node.name));
      return { node, unit, weights: weightsOfUnit(unit) };
    }
    case 'negate': {
      const inner = of(node.of);
      return { ...inner, node: { ...node, of: inner.node }, weights: scaleWeights(inner.weights, -1) };
    }
    case 'binary':
      return checkBinary(node, of(node.left), of(node.right));
    case 'call':
      return checkCall(node, node.args.map(of));
  }
}

type Binary = Extract<Node, { kind: 'binary' }>;
type Call = Extract<Node, { kind: 'call' }>;

function checkBinary(node: Binary, left: Found, right: Found): Found {
  const { operator } = node;
  if (operator === '*' || operator === '/') return checkProduct(node, left, right);
  const both = together(left, right, operator);
  const joined = { ...node, left: both.left, right: both.right };
  if (operator === '+' || operator === '-') {
    const weights = addWeights(left.weights, right.weights, operator === '+' ? 1 : -1);
    return { node: joined, unit: both.unit, weights: both.unit ? weights : { ...NO_WEIGHTS, number: 1 } };
  }
  needSameMeaning(both.unit ?? NO_UNIT, left.weights, right.weights, operator);
  return { node: joined, unit: null, weights: { ...NO_WEIGHTS, number: 1 } };
}

function checkProduct(node: Binary, left: Found, right: Found): Found {
  const joined = { ...node, left: left.node, right: right.node };
  const isProduct = node.operator === '*';
  const by = constantOf(right.node);
  const scale = isProduct ? constantOf(left.node) : null;
  // A constant scales; anything else needs quantities with a true zero.
  if (left.unit && right.unit === null && by !== null)
    return { node: joined, unit: left.unit, weights: scaleWeights(left.weights, isProduct ? by : 1 / by) };
  if (right.unit && left.unit === null && scale !== null)
    return { node: joined, unit: right.unit, weights: scaleWeights(right.weights, scale) };
  const what = isProduct ? 'Multiplying' : 'Dividing';
  for (const side of [left, right]) if (side.unit) needDifference(side.unit, side.weights, what);
  const plain = { node: joined, weights: { ...NO_WEIGHTS, number: 1 } };
  if (left.unit === null && right.unit === null) return { ...plain, unit: null };
  const unit = isProduct
    ? times(left.unit ?? NO_UNIT, right.unit ?? NO_UNIT)
    : per(left.unit ?? NO_UNIT, right.unit ?? NO_UNIT);
  return { ...plain, unit, weights: NO_WEIGHTS };
}

function constantOf(node: Node): number | null {
  if (node.kind === 'number') return node.value;
  if (node.kind === 'negate') {
    const inner = constantOf(node.of);
    return inner === null ? null : -inner;
  }
  if (node.kind !== 'binary') return null;
  const [a, b] = [constantOf(node.left), constantOf(node.right)];
  if (a === null || b === null) return null;
  if (node.operator === '*') return a * b;
  if (node.operator === '/') return a / b;
  if (node.operator === '+') return a + b;
  return node.operator === '-' ? a - b : null;
}

function checkCall(node: Call, args: readonly Found[]): Found {
  const [first] = args;
  const joined = { ...node, args: args.map((each) => each.node) };
  switch (node.name) {
    case 'min':
    case 'max':
      return sameOf(node, args, 0);
    case 'if':
      return sameOf(node, args, 1);
    case 'difference':
      return {
        node: joined,
        unit: differenceOf(first.unit),
        weights: first.weights.terms > 0 ? DIFFERENCE : NO_WEIGHTS,
      };
    case 'rate':
      return {
        node: joined,
        unit: per(differenceOf(first.unit) ?? NO_UNIT, readUnit('h')),
        weights: NO_WEIGHTS,
      };
    case 'sqrt':
      if (first.unit) needDifference(first.unit, first.weights, 'A root of');
      return { node: joined, unit: first.unit && power(first.unit, 0.5), weights: NO_WEIGHTS };
    case 'cumulative':
      if (first.unit) needDifference(first.unit, first.weights, 'A running total of');
      return { node: joined, unit: first.unit, weights: first.weights };
    default:
      return { node: joined, unit: first.unit, weights: first.weights };
  }
}

const differenceOf = (unit: Unit | null): Unit | null => unit && readUnit(unitOfDifference(writeUnit(unit)));

/** Arguments from the given one on must be alike; those of other temperature scales are converted to the first. */
function sameOf(node: Call, args: readonly Found[], from: number): Found {
  let result = args[from];
  const nodes = args.map((each) => each.node);
  for (let i = from + 1; i < args.length; i++) {
    const both = together(result, args[i], node.name);
    needSameMeaning(both.unit ?? NO_UNIT, result.weights, args[i].weights, node.name);
    nodes[i] = both.right;
    result = { ...result, unit: both.unit, weights: result.unit ? result.weights : args[i].weights };
  }
  return { ...result, node: { ...node, args: nodes } };
}

interface Together {
  readonly unit: Unit | null;
  readonly left: Node;
  readonly right: Node;
}

/** Two sides that must be alike, both in one scale. @throws {BeaconError} if they are not. */
function together(left: Found, right: Found, where: string): Together {
  const [a, b] = [left.unit, right.unit];
  const nodes = { left: left.node, right: right.node };
  if (a === null || b === null) return { unit: a ?? b, ...nodes };
  const names = `${writeUnit(a) || 'no unit'} and ${writeUnit(b) || 'no unit'}`;
  if (!sameDimension(a, b)) {
    throw new BeaconError(
      'BAD_INPUT',
      `${names} measure different things and cannot be put together with ${where}.`,
      'expression',
    );
  }
  const factor = conversion(b, a)!;
  const [aBelow, bBelow] = [zeroBelow(a), zeroBelow(b)];
  if (aBelow !== null && bBelow !== null && (aBelow !== bBelow || Math.abs(factor - 1) > 1e-9)) {
    const isSum = where === '+' || where === '-';
    const isTemperature = isSum
      ? isKelvinAddedTemperature(a, addWeights(left.weights, right.weights, where === '+' ? 1 : -1))
      : isKelvinComparedTemperature(left.weights);
    return { unit: a, left: left.node, right: inScaleOf(a, b, right.weights, isTemperature, right.node) };
  }
  // A difference takes the degrees of the temperature beside it.
  if (aBelow !== null) return { unit: a, left: left.node, right: scaled(right.node, factor) };
  if (bBelow !== null) return { unit: b, left: scaled(left.node, 1 / factor), right: right.node };
  if (Math.abs(factor - 1) > 1e-9) {
    throw new BeaconError(
      'BAD_INPUT',
      `${names} are of different size. Multiply the second by ${Number(factor.toPrecision(6))} to put them together with ${where}.`,
      'expression',
    );
  }
  return { unit: a, ...nodes };
}
