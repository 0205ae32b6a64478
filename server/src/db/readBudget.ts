import { BeaconError } from '@vivid-beacon/core';
import type { Queryable } from './database';
import type { Reader } from './reader';

/** Thrown if the main thread should not go on; the work is then done in a worker thread. */
export class ReadBudgetExceeded extends Error {
  constructor() {
    super('This answer reads more than the answering thread may.');
    this.name = 'ReadBudgetExceeded';
  }
}

/** Largest amount read on the main thread: some tens of ms. */
const MAX_INLINE = 300_000;
/** Largest amount for one answer: a year of one metric every two seconds. */
const MAX_TOTAL = 20_000_000;

/**
 * How much one answer may still read and compute, in samples; other work is counted as the number of samples that take
 * about as long.
 */
export interface ReadBudget {
  left: number;
  readonly over: (samples: number) => Error;
}

/** For answers on the main thread. */
export function budgetHere(): ReadBudget {
  return { left: MAX_INLINE, over: () => new ReadBudgetExceeded() };
}

/** For answers in a worker thread. */
export function budgetAtAll(): ReadBudget {
  return {
    left: MAX_TOTAL,
    over: () =>
      new BeaconError(
        'BAD_INPUT',
        `This answer would read more than ${MAX_TOTAL.toLocaleString('en-GB')} samples. Choose a shorter window, longer periods or fewer metrics.`,
        'window',
      ),
  };
}

/** Database access with a budget. */
interface BudgetedReader extends Reader {
  readonly budget: ReadBudget;
}

export function withBudget(db: Reader, budget: ReadBudget): Reader {
  const budgeted: BudgetedReader = { ...db, budget };
  return budgeted;
}

/** The rest of the budget; null without one. */
export function budgetOf(db: Queryable): ReadBudget | null {
  return (db as Partial<BudgetedReader>).budget ?? null;
}

/**
 * Charges work to the budget before it is done.
 *
 * @throws {ReadBudgetExceeded} or {BeaconError} BAD_INPUT when it is more than what is left; without a budget
 * never.
 */
export function spend(db: Queryable, samples: number): void {
  const budget = budgetOf(db);
  if (budget === null) return;
  if (samples > budget.left) throw budget.over(samples);
  budget.left -= samples;
}
