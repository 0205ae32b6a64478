import { BeaconError } from '../errors';
import { stepsOf, type Node } from './parseExpression';

/** Each takes some nanoseconds. */
export const MAX_OPERATIONS = 30_000_000;

/** Operations per step of an expression: one per node, and for a rolling mean as many as it looks back. */
export function operationsPerStep(node: Node): number {
  switch (node.kind) {
    case 'number':
    case 'name':
      return 1;
    case 'negate':
      return 1 + operationsPerStep(node.of);
    case 'binary':
      return 1 + operationsPerStep(node.left) + operationsPerStep(node.right);
    case 'call': {
      const own = node.name === 'rolling' ? stepsOf(node) : node.args.length;
      return node.args.reduce((sum, each) => sum + operationsPerStep(each), own);
    }
  }
}

/**
 * Refuses an expression that would take too long over so many steps, before it is evaluated.
 *
 * @throws {BeaconError} BAD_INPUT saying over how many steps it may be evaluated.
 */
export function checkCost(node: Node, steps: number): void {
  const each = operationsPerStep(node);
  if (each * steps <= MAX_OPERATIONS) return;
  const most = Math.floor(MAX_OPERATIONS / each).toLocaleString('en-GB');
  throw new BeaconError(
    'BAD_INPUT',
    `The expression takes ${each.toLocaleString('en-GB')} operations a step, so it can be worked out for at most ${most} steps at once; these are ${steps.toLocaleString('en-GB')}. Choose a shorter window or a longer period, or look back less far.`,
    'expression',
  );
}
