import { traitsOf, type AlarmTest } from './alarmTest';

/* A rule of two stages: the same test with a milder limit is the Caution before the Breach. */

/** A test but for its limit and deadband. */
const restOf = (test: AlarmTest): string => JSON.stringify({ ...test, limit: 0, deadband: 0 });

/**
 * Whether a test trips no later than another of its kind: alike but for a milder limit.
 * @example isMilder(
 *   { kind: 'limit', side: 'above', limit: 195, deadband: 0 },
 *   { kind: 'limit', side: 'above', limit: 205, deadband: 4 },
 * ) // => true
 */
export function isMilder(milder: AlarmTest, test: AlarmTest): boolean {
  if (milder.kind !== test.kind) return false;
  const { threshold, isMilder: own, hasLimit } = traitsOf(test);
  if (own) return own(milder, test);
  return hasLimit && restOf(milder) === restOf(test) && threshold(milder).limit < threshold(test).limit;
}

/** Whether a Caution can come before what a test looks for. */
export const canHaveStages = (test: AlarmTest): boolean => milderTest(test) !== null;

/** A first Caution before a test, at nine tenths of its limit; null where there is nothing milder. */
export function milderTest(test: AlarmTest): AlarmTest | null {
  return traitsOf(test).milder?.(test) ?? null;
}
