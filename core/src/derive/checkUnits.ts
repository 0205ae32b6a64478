import { BeaconError } from '../errors';
import {
  conversion,
  NO_UNIT,
  per,
  power,
  readUnit,
  sameDimension,
  times,
  writeUnit,
  type Unit,
} from '../units/unit';
import type { Node } from './parseExpression';

/** null = a bare number, compatible with any unit. */
type Found = Unit | null;

/**
 * The unit of an expression. Sums, differences and comparisons need equal units; products and quotients make
 * new ones, written with the names the person chose.
 *
 * @param unitOf the unit of a name, as written.
 * @throws {BeaconError} BAD_INPUT naming both units where they do not go together.
 */
export function unitOfExpression(node: Node, unitOf: (name: string) => string): Unit {
  return unitIn(node, unitOf) ?? NO_UNIT;
}

function unitIn(node: Node, unitOf: (name: string) => string): Found {
  const of = (each: Node): Found => unitIn(each, unitOf);
  switch (node.kind) {
    case 'number':
      return null;
    case 'name':
      return readUnit(unitOf(node.name));
    case 'negate':
      return of(node.of);
    case 'binary': {
      const left = of(node.left);
      const right = of(node.right);
      if (node.operator === '*') return left && right ? times(left, right) : (left ?? right);
      if (node.operator === '/') return right ? per(left ?? NO_UNIT, right) : left;
      const same = alike(left, right, node.operator);
      return node.operator === '+' || node.operator === '-' ? same : null;
    }
    case 'call': {
      const args = node.args.map(of);
      switch (node.name) {
        case 'min':
        case 'max':
          return args.reduce((a, b) => alike(a, b, node.name));
        case 'if':
          return alike(args[1], args[2], 'if');
        case 'rate':
          return per(args[0] ?? NO_UNIT, readUnit('h'));
        case 'sqrt':
          return args[0] && power(args[0], 0.5);
        default:
          return args[0];
      }
    }
  }
}

function alike(a: Found, b: Found, where: string): Found {
  if (a === null || b === null) return a ?? b;
  const names = `${writeUnit(a) || 'no unit'} and ${writeUnit(b) || 'no unit'}`;
  if (!sameDimension(a, b)) {
    throw new BeaconError(
      'BAD_INPUT',
      `${names} measure different things and cannot be put together with ${where}.`,
      'expression',
    );
  }
  const factor = conversion(b, a)!;
  if (Math.abs(factor - 1) > 1e-9) {
    throw new BeaconError(
      'BAD_INPUT',
      `${names} are of different size. Multiply the second by ${Number(factor.toPrecision(6))} to put them together with ${where}.`,
      'expression',
    );
  }
  return a;
}
