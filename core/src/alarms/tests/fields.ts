import * as yup from 'yup';
import { finite } from '../../schemas/parts';

/* Fields that several tests have: limits and deadbands are in the unit of the metric, lengths of time in ms. */

export const side = <const Side extends string>(...sides: readonly Side[]) =>
  yup.string().oneOf<Side>(sides).required();
export const limit = finite().required('Give a limit');
export const moreThanNothing = finite().required('Give a limit').moreThan(0, 'The limit must be more than 0');
export const deadband = finite().min(0, 'The deadband must be at least 0').required();
export const lengthMs = (shortest: number, longest: number, words: string) =>
  yup.number().integer().min(shortest, words).max(longest, words).required(words);

/** A limit a tenth of its size nearer to everyday values: below an upper one, above a lower one. */
export const nearer = (limit: number, isLow: boolean): number =>
  Number((limit + (isLow ? 1 : -1) * Math.max(Math.abs(limit) / 10, Number.MIN_VALUE)).toPrecision(12));

/** A tenth of the usual value, never zero: the first limit of a test on differences. */
export function someOf(usual: number, decimals: number): number {
  return Math.max(10 ** -decimals, roundTo(Math.abs(usual) / 10, decimals));
}

export const roundTo = (value: number, decimals: number): number => Number(value.toFixed(decimals));
