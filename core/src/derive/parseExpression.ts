import jsep from 'jsep';
import { BeaconError } from '../errors';

/** A parsed expression; these are all the node types. */
export type Node =
  | { readonly kind: 'number'; readonly value: number }
  | { readonly kind: 'name'; readonly name: string }
  | { readonly kind: 'negate'; readonly of: Node }
  | { readonly kind: 'binary'; readonly operator: BinaryOperator; readonly left: Node; readonly right: Node }
  | { readonly kind: 'call'; readonly name: FunctionName; readonly args: readonly Node[] };

export const BINARY_OPERATORS = ['+', '-', '*', '/', '<', '>', '<=', '>=', '==', '!='] as const;
export type BinaryOperator = (typeof BINARY_OPERATORS)[number];

/** The functions, each with its number of arguments, its form and its description. */
export const FUNCTIONS = {
  abs: { args: [1, 1], form: 'abs(x)', does: 'size without sign' },
  sqrt: { args: [1, 1], form: 'sqrt(x)', does: 'square root' },
  round: { args: [1, 2], form: 'round(x, decimals)', does: 'rounded, to whole numbers or to decimals' },
  min: { args: [2, 12], form: 'min(a, b, …)', does: 'the smallest' },
  max: { args: [2, 12], form: 'max(a, b, …)', does: 'the largest' },
  if: { args: [3, 3], form: 'if(a > b, x, y)', does: 'x where the condition holds, else y' },
  difference: { args: [1, 1], form: 'difference(x)', does: 'change from the value before' },
  rate: { args: [1, 1], form: 'rate(x)', does: 'per hour: of an amount in its period, of others the change' },
  rolling: { args: [2, 2], form: 'rolling(x, 7)', does: 'mean of the last 7 values, this one included' },
  cumulative: { args: [1, 1], form: 'cumulative(x)', does: 'running total from the start of the window' },
  lag: { args: [2, 2], form: 'lag(x, 1)', does: 'the value 1 step earlier' },
} as const;
export type FunctionName = keyof typeof FUNCTIONS;

const LONGEST = 4000;
const MAX_NODES = 400;
const DEEPEST = 40;

/**
 * Reads an expression over named metrics with the parser jsep, and lets through only numbers, names, + − * / ,
 * comparisons and the functions listed in {@link FUNCTIONS}.
 *
 * @throws {BeaconError} BAD_INPUT saying what is wrong and at which character (from 1); also for more than
 *         4,000 characters, 400 parts, 40 levels of brackets or 1,000 steps back.
 */
export function parseExpression(text: string): Node {
  if (text.trim() === '') throw wrong('The expression is empty. Write for example gas / weight.');
  if (text.length > LONGEST) {
    throw wrong(`An expression may have at most ${LONGEST} characters, got ${text.length}.`);
  }
  let depth = 0;
  for (let i = 0; i < text.length; i++) {
    if (text[i] === '(') depth++;
    if (text[i] === ')') depth--;
    if (depth > DEEPEST) throw wrong(`Brackets may be at most ${DEEPEST} deep (character ${i + 1}).`);
  }
  const count = { left: MAX_NODES };
  const node = toNode(parse(withPlainSigns(text)), 0, count);
  const back = stepsBack(node);
  if (back > MAX_STEPS) {
    throw wrong(
      `The expression looks back ${back.toLocaleString('en-GB')} steps in all; it may look back at most ${MAX_STEPS.toLocaleString('en-GB')}.`,
    );
  }
  return node;
}

/** Characters that people type or paste instead of the arithmetic operators. */
function withPlainSigns(text: string): string {
  return text.replace(/[×·]/g, '*').replace(/[÷∕]/g, '/').replace(/[−–]/g, '-');
}

function parse(text: string): jsep.Expression {
  try {
    return jsep(text);
  } catch (error) {
    const { description, index } = error as { description?: string; index?: number };
    const what = description ?? 'This cannot be read';
    throw wrong(`${what.replace(/\.$/, '')} at character ${(index ?? 0) + 1}.`);
  }
}

function toNode(expression: jsep.Expression, depth: number, count: { left: number }): Node {
  if (--count.left < 0) throw wrong(`An expression may have at most ${MAX_NODES} parts.`);
  if (depth > DEEPEST * 3) throw wrong('The expression is too deeply nested.');
  const down = (each: jsep.Expression): Node => toNode(each, depth + 1, count);
  switch (expression.type) {
    case 'Literal': {
      const { value, raw } = expression as jsep.Literal;
      if (typeof value !== 'number' || !Number.isFinite(value)) {
        throw wrong(`Only numbers and names can be used, got ${String(raw).slice(0, 40)}.`);
      }
      return { kind: 'number', value };
    }
    case 'Identifier': {
      const { name } = expression as jsep.Identifier;
      return { kind: 'name', name };
    }
    case 'UnaryExpression': {
      const { operator, argument } = expression as jsep.UnaryExpression;
      if (operator === '-') return { kind: 'negate', of: down(argument) };
      if (operator === '+') return down(argument);
      throw wrong(`The sign ${operator} cannot be used.`);
    }
    case 'BinaryExpression': {
      const { operator, left, right } = expression as jsep.BinaryExpression;
      if (!(BINARY_OPERATORS as readonly string[]).includes(operator)) {
        throw wrong(`The sign ${operator} cannot be used; there are + − * / and comparisons.`);
      }
      return { kind: 'binary', operator: operator as BinaryOperator, left: down(left), right: down(right) };
    }
    case 'ConditionalExpression': {
      const { test, consequent, alternate } = expression as jsep.ConditionalExpression;
      return { kind: 'call', name: 'if', args: [down(test), down(consequent), down(alternate)] };
    }
    case 'CallExpression': {
      const call = expression as jsep.CallExpression;
      const name = call.callee.type === 'Identifier' ? (call.callee as jsep.Identifier).name : '';
      if (!Object.hasOwn(FUNCTIONS, name)) {
        throw wrong(
          `There is no function "${name.slice(0, 40)}". There are ${Object.keys(FUNCTIONS).join(', ')}.`,
        );
      }
      const [fewest, most] = FUNCTIONS[name as FunctionName].args;
      const args = call.arguments ?? [];
      if (args.length < fewest || args.length > most) {
        throw wrong(`${name} is written ${FUNCTIONS[name as FunctionName].form}.`);
      }
      return { kind: 'call', name: name as FunctionName, args: args.map(down) };
    }
    default:
      throw wrong(
        expression.type === 'Compound'
          ? 'This is not one expression; a sign between its parts is missing.'
          : 'Only arithmetic over names can be written here.',
      );
  }
}

/**
 * Names used, each once, in order of first use.
 * @example namesIn(parseExpression('gas / (weight + weight)')) // => ['gas', 'weight']
 */
export function namesIn(node: Node): string[] {
  const names = new Set<string>();
  const visit = (each: Node): void => {
    if (each.kind === 'name') names.add(each.name);
    else if (each.kind === 'negate') visit(each.of);
    else if (each.kind === 'binary') {
      visit(each.left);
      visit(each.right);
    } else if (each.kind === 'call') each.args.forEach(visit);
  };
  visit(node);
  return [...names];
}

/**
 * How many steps before the first one an expression looks back, for difference, rolling and lag.
 * @example stepsBack(parseExpression('rolling(gas, 7) + lag(gas, 2)')) // => 6
 */
export function stepsBack(node: Node): number {
  switch (node.kind) {
    case 'number':
    case 'name':
      return 0;
    case 'negate':
      return stepsBack(node.of);
    case 'binary':
      return Math.max(stepsBack(node.left), stepsBack(node.right));
    case 'call': {
      const inner = Math.max(...node.args.map(stepsBack));
      if (node.name === 'difference' || node.name === 'rate') return inner + 1;
      if (node.name === 'rolling') return inner + stepsOf(node) - 1;
      if (node.name === 'lag') return inner + stepsOf(node);
      return inner;
    }
  }
}

const MAX_STEPS = 1000;

/** The whole number of steps that rolling and lag are given. @throws {BeaconError} for anything else. */
export function stepsOf(node: Extract<Node, { kind: 'call' }>): number {
  const steps = node.args[1];
  const value = steps.kind === 'number' ? steps.value : NaN;
  const least = node.name === 'rolling' ? 1 : 0;
  if (!Number.isInteger(value) || value < least || value > MAX_STEPS) {
    throw wrong(`${node.name} needs a whole number of steps from ${least} to ${MAX_STEPS}.`);
  }
  return value;
}

function wrong(message: string): BeaconError {
  return new BeaconError('BAD_INPUT', message, 'expression');
}
