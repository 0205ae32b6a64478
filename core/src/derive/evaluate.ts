import { difference, isAbove, isBelow } from '../stats/decimal';
import { stepsOf, type Node } from './parseExpression';

/** Values of every name at the same steps. All columns have `size` entries; NaN = missing. */
export interface StepValues {
  readonly size: number;
  readonly of: (name: string) => Float64Array;
  /** Length of each step in hours, for rate of an amount; or ms times of the steps, for rate of others. */
  readonly hours: Float64Array;
  /** Names whose values are amounts of a step: their rate is value ÷ hours, not a change. */
  readonly amounts: ReadonlySet<string>;
}

/**
 * Evaluates an expression at every step. Missing values stay missing: so is a sum with a missing term, and a
 * division by zero.
 */
export function evaluate(node: Node, values: StepValues): Float64Array {
  const { size } = values;
  switch (node.kind) {
    case 'number':
      return new Float64Array(size).fill(node.value);
    case 'name':
      return values.of(node.name);
    case 'negate':
      return evaluate(node.of, values).map((x) => -x);
    case 'binary': {
      const a = evaluate(node.left, values);
      const b = evaluate(node.right, values);
      const out = new Float64Array(size);
      const pair = PAIRS[node.operator];
      for (let i = 0; i < size; i++) out[i] = a[i] !== a[i] || b[i] !== b[i] ? NaN : pair(a[i], b[i]);
      return out;
    }
    case 'call':
      return call(node, values);
  }
}

const PAIRS = {
  '+': (a: number, b: number) => difference(a, -b),
  '-': difference,
  '*': (a: number, b: number) => a * b,
  '/': (a: number, b: number) => (b === 0 ? NaN : a / b),
  '<': (a: number, b: number) => Number(isBelow(a, b)),
  '>': (a: number, b: number) => Number(isAbove(a, b)),
  '<=': (a: number, b: number) => Number(!isAbove(a, b)),
  '>=': (a: number, b: number) => Number(!isBelow(a, b)),
  '==': (a: number, b: number) => Number(!isAbove(a, b) && !isBelow(a, b)),
  '!=': (a: number, b: number) => Number(isAbove(a, b) || isBelow(a, b)),
};

function call(node: Extract<Node, { kind: 'call' }>, values: StepValues): Float64Array {
  const { size } = values;
  const args = node.args.map((each) => evaluate(each, values));
  const x = args[0];
  const out = new Float64Array(size);
  switch (node.name) {
    case 'abs':
      return x.map(Math.abs);
    case 'sqrt':
      return x.map(Math.sqrt);
    case 'round':
      for (let i = 0; i < size; i++) {
        const scale = 10 ** (args[1]?.[i] ?? 0);
        out[i] = Math.round(x[i] * scale) / scale;
      }
      return out;
    case 'min':
    case 'max':
      for (let i = 0; i < size; i++) out[i] = Math[node.name](...args.map((each) => each[i]));
      return out;
    case 'if':
      for (let i = 0; i < size; i++) out[i] = x[i] !== x[i] ? NaN : x[i] !== 0 ? args[1][i] : args[2][i];
      return out;
    case 'difference':
      for (let i = 0; i < size; i++) out[i] = i === 0 ? NaN : x[i] - x[i - 1];
      return out;
    case 'rate': {
      const amount = isAmount(node.args[0], values.amounts);
      for (let i = 0; i < size; i++) {
        const change = amount ? x[i] : i === 0 ? NaN : x[i] - x[i - 1];
        out[i] = values.hours[i] > 0 ? change / values.hours[i] : NaN;
      }
      return out;
    }
    case 'rolling': {
      const steps = stepsOf(node);
      for (let i = 0; i < size; i++) out[i] = i + 1 < steps ? NaN : meanOf(x, i + 1 - steps, i + 1);
      return out;
    }
    case 'cumulative': {
      let total = 0;
      for (let i = 0; i < size; i++) {
        if (x[i] === x[i]) total += x[i];
        out[i] = x[i] === x[i] ? total : NaN;
      }
      return out;
    }
    case 'lag': {
      const steps = stepsOf(node);
      for (let i = 0; i < size; i++) out[i] = i < steps ? NaN : x[i - steps];
      return out;
    }
  }
}

/** Mean of the known values; missing if there are none. */
function meanOf(x: Float64Array, from: number, to: number): number {
  let total = 0;
  let n = 0;
  for (let i = from; i < to; i++) {
    if (x[i] !== x[i]) continue;
    total += x[i];
    n++;
  }
  return n === 0 ? NaN : total / n;
}

/** Whether this is an amount per step, whose rate is the amount divided by the length of the step. */
export function isAmount(node: Node, amounts: ReadonlySet<string>): boolean {
  switch (node.kind) {
    case 'number':
      return false;
    case 'name':
      return amounts.has(node.name);
    case 'negate':
      return isAmount(node.of, amounts);
    case 'binary':
      return node.operator === '/'
        ? isAmount(node.left, amounts) && !isAmount(node.right, amounts)
        : isAmount(node.left, amounts) || isAmount(node.right, amounts);
    case 'call':
      return node.args.some((each) => isAmount(each, amounts));
  }
}
