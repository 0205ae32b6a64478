import { BeaconError } from '../errors';
import { readUnit, sameDimension, writeUnit } from '../units/unit';
import type { CheckedExpression } from './checkUnits';
import type { Node } from './parseExpression';
import { toScale } from './temperature';

/**
 * Refuses cycles: a derived metric must not use itself, directly or through others.
 *
 * @param uses the metrics a derived metric uses, by id; none for other metrics.
 * @param nameOf for the message.
 * @throws {BeaconError} BAD_INPUT naming the circle.
 */
export function refuseCircle(
  start: string,
  uses: (metricId: string) => readonly string[],
  nameOf: (metricId: string) => string,
): void {
  const path: string[] = [];
  const done = new Set<string>();
  const visit = (id: string): void => {
    if (path.includes(id)) {
      const circle = [...path.slice(path.indexOf(id)), id].map(nameOf).join(' → ');
      throw new BeaconError('BAD_INPUT', `This would go in a circle: ${circle}.`, 'expression');
    }
    if (done.has(id)) return;
    path.push(id);
    uses(id).forEach(visit);
    path.pop();
    done.add(id);
  };
  visit(start);
}

/**
 * What brings results into the chosen unit: value × factor + offset. An empty choice takes the resulting unit. A
 * ratio without unit shown in % is multiplied by 100, unless the expression already ends in "* 100".
 *
 * @throws {BeaconError} BAD_INPUT if the chosen unit is of another dimension.
 */
export function toChosenUnit(
  { unit: found, weights, node }: CheckedExpression,
  chosen: string,
): { readonly factor: number; readonly offset: number } {
  const asItIs = { factor: 1, offset: 0 };
  if (chosen.trim() === '' || chosen.trim() === writeUnit(found)) return asItIs;
  const wanted = readUnit(chosen);
  if (!sameDimension(found, wanted)) {
    // The unit of a bare number is unknown, so the chosen unit is taken as it is.
    if (Object.keys(found.dimension).length === 0 && found.factor === 1) return asItIs;
    throw new BeaconError(
      'BAD_INPUT',
      `The expression comes out in ${writeUnit(found) || 'a plain number'}, which is not ${chosen}.`,
      'unit',
    );
  }
  if (chosen.trim() === '%' && endsInHundred(node)) return asItIs;
  return toScale(found, wanted, weights);
}

function endsInHundred(node: Node): boolean {
  return (
    node.kind === 'binary' &&
    node.operator === '*' &&
    [node.left, node.right].some((each) => each.kind === 'number' && each.value === 100)
  );
}
