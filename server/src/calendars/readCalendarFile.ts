import { BeaconError, type Holiday } from '@vivid-beacon/core';
import type { Workers } from '../workers/workers';

/** Some rules have no next day, and the library that follows them looks for it for ever. */
const MAX_MS = 1500;

/**
 * Reads an iCalendar file in a thread of its own, which is ended when it takes too long.
 *
 * @throws {BeaconError} BAD_INPUT as holidaysOfCalendar does, and for a file that takes longer than 1.5 s.
 */
export async function readCalendarFile(
  { calendars }: Workers,
  file: { readonly text: string; readonly zone: string; readonly now: number },
): Promise<Holiday[]> {
  // The time of a thread that has still to start is not that of the file.
  await calendars.run('start', null);
  const signal = AbortSignal.timeout(MAX_MS);
  try {
    return await calendars.run<Holiday[]>('readCalendar', file, { signal });
  } catch (error) {
    if (!signal.aborted) throw error;
    throw new BeaconError(
      'BAD_INPUT',
      'This calendar has a rule whose days cannot be found, such as 30 February, or too much in it.',
      'file',
    );
  }
}
