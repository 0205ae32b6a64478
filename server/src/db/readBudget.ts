import { BeaconError } from '@vivid-beacon/core';
import type { Queryable } from './database';
import type { Reader } from './reader';

/** Thrown where the thread that answers everybody should not go on: the same is then done in a thread of its own. */
export class TooMuchHere extends Error {
  constructor() {
    super('This answer reads more than the answering thread may.');
    this.name = 'TooMuchHere';
  }
}

/** So much is read without leaving the answering thread: some tens of ms. */
const MOST_HERE = 300_000;
/** So much for one answer at all: a year of one metric by the two seconds. */
const MOST_AT_ALL = 20_000_000;

/**
 * How much one answer may still read and compute, in samples; other work is counted as the number of samples that take
 * about as long.
 */
export interface ReadBudget {
  left: number;
  readonly over: (samples: number) => Error;
}

/** For answers begun where everybody is answered. */
export function budgetHere(): ReadBudget {
  return { left: MOST_HERE, over: () => new TooMuchHere() };
}

/** For answers in a thread of their own. */
export function budgetAtAll(): ReadBudget {
  return {
    left: MOST_AT_ALL,
    over: () =>
      new BeaconError(
        'BAD_INPUT',
        `This answer would read more than ${MOST_AT_ALL.toLocaleString('en-GB')} samples. Choose a shorter window, longer periods or fewer metrics.`,
        'window',
      ),
  };
}

/** A way to the database that carries a budget. */
interface BudgetedReader extends Reader {
  readonly budget: ReadBudget;
}

export function withBudget(db: Reader, budget: ReadBudget): Reader {
  const budgeted: BudgetedReader = { ...db, budget };
  return budgeted;
}

/** What is left of a budget; null where there is none. */
export function budgetOf(db: Queryable): ReadBudget | null {
  return (db as Partial<BudgetedReader>).budget ?? null;
}

/**
 * Counts work before it is done.
 *
 * @throws {TooMuchHere} or {BeaconError} BAD_INPUT when it is more than what is left; without a budget never.
 */
export function spend(db: Queryable, samples: number): void {
  const budget = budgetOf(db);
  if (budget === null) return;
  if (samples > budget.left) throw budget.over(samples);
  budget.left -= samples;
}
