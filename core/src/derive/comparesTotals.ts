import { namesIn, type Node } from './parseExpression';

/**
 * Whether an expression sets totals against each other or against the time, so that all of them must be of the
 * same time: gas per kg, supply less use, an amount per hour. One that only adds and scales does not.
 *
 * @example comparesTotals(parseExpression('gas / weight')) // => true
 */
export function comparesTotals(node: Node): boolean {
  switch (node.kind) {
    case 'number':
    case 'name':
      return false;
    case 'negate':
      return comparesTotals(node.of);
    case 'binary': {
      const both = namesIn(node.left).length > 0 && namesIn(node.right).length > 0;
      const adds = node.operator === '+' || (node.operator === '*' && !both);
      return (both && !adds) || comparesTotals(node.left) || comparesTotals(node.right);
    }
    case 'call':
      return node.name === 'rate' || new Set(namesIn(node)).size > 1 || node.args.some(comparesTotals);
  }
}
