import { BeaconError } from '@vivid-beacon/core';

/**
 * SQLSTATE of a database that cannot be reached, is starting or is going (PostgreSQL manual, appendix A): class 08, too
 * many connections, and operator intervention.
 */
const AWAY_STATES = /^(?:08...|53300|57P0[1-3])$/;
/** Codes of the network. */
const AWAY_CODES: ReadonlySet<string> = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOTFOUND',
  'ETIMEDOUT',
  'EHOSTUNREACH',
]);
/** What node-postgres says without a code. */
const AWAY_WORDS =
  /Connection terminated|timeout exceeded when trying to connect|connection error and is not queryable/;

/** Is this the error of a statement that failed because the database is not there at the moment? */
export function isDatabaseAway(error: unknown): boolean {
  if (error instanceof AggregateError) return error.errors.some(isDatabaseAway);
  const { code, message, cause } = (error ?? {}) as { code?: unknown; message?: string; cause?: unknown };
  if (typeof code === 'string' && (AWAY_STATES.test(code) || AWAY_CODES.has(code))) return true;
  return AWAY_WORDS.test(message ?? '') || (cause !== undefined && isDatabaseAway(cause));
}

const WAIT_S = 2;

/** How that is answered. */
export function databaseAway(): BeaconError {
  const words = `The database cannot be reached. Nothing of this was done; try again in ${WAIT_S} s.`;
  return new BeaconError('NOT_READY', words, undefined, WAIT_S);
}
