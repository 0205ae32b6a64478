import type { ReadContext } from './readContext';

/**
 * Answers a question from what is stored and changes nothing. Each begins where everybody is answered and goes on in a
 * thread of its own when it turns out to be long. Bytes are sent as they are, all else as JSON.
 */
export interface ReadingHandler<Ask, Answer> {
  /** Names it to the thread that goes on with it; it must stand in the list of readings (server/src/readings.ts). */
  readonly name: string;
  readonly read: (context: ReadContext, ask: Ask) => Promise<Answer>;
  /** What nobody chooses the size of, or what bounds itself: it is answered however much there is. */
  readonly unbounded: boolean;
}

export const readingHandler = <Ask, Answer>(
  name: string,
  read: ReadingHandler<Ask, Answer>['read'],
  { unbounded = false } = {},
): ReadingHandler<Ask, Answer> => ({ name, read, unbounded });
