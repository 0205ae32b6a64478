import type { Call } from '../http/endpoint';
import { budgetHere, TooMuchHere, withBudget } from '../db/readBudget';
import { BYTES, sendColumns } from './columns';
import { readContext } from './readContext';
import { READINGS, type AskOf, type Reading, type ReadingName } from './readings';
import type { SharedReads } from './sharedReads';

/** An answer as it is sent, made in another thread. */
export interface MadeAnswer {
  readonly type: string;
  readonly bytes: Uint8Array;
}

/** What is needed to answer: the app, and the database as the asker may see it. */
export type Asked = Pick<Call<unknown, unknown>, 'app' | 'db'>;

/** A reading's answer, computed here or, when that would hold up everybody else, in a thread of its own. */
export async function computeReading<Name extends ReadingName>(
  { app, db }: Asked,
  name: Name,
  ask: AskOf<Name>,
  reads?: SharedReads,
): Promise<{ readonly here: unknown } | { readonly made: MadeAnswer }> {
  const now = app.now();
  try {
    const read = READINGS[name] as Reading<AskOf<Name>>;
    return { here: await read(readContext(withBudget(db, budgetHere()), now, reads), ask) };
  } catch (error) {
    if (!(error instanceof TooMuchHere)) throw error;
  }
  return { made: await app.workers.readings.run<MadeAnswer>('read', { name, ask, now, asker: db.asker }) };
}

/** Answers a call with a reading. @returns what is sent as JSON; undefined when the answer has gone as bytes. */
export async function answerReading<Name extends ReadingName>(
  { app, db, response }: Pick<Call<unknown, unknown>, 'app' | 'db' | 'response'>,
  name: Name,
  ask: AskOf<Name>,
): Promise<unknown> {
  const answer = await computeReading({ app, db }, name, ask);
  if ('here' in answer && !(answer.here instanceof Uint8Array)) return answer.here;
  const { type, bytes } = 'made' in answer ? answer.made : { type: BYTES, bytes: answer.here as Uint8Array };
  sendColumns(response, bytes, type);
  return undefined;
}

/** An answer as bytes, so that nobody has to put it into words on the answering thread. */
export function madeOf(answer: unknown): MadeAnswer {
  if (answer instanceof Uint8Array) return { type: BYTES, bytes: answer };
  return {
    type: 'application/json; charset=utf-8',
    bytes: new TextEncoder().encode(JSON.stringify(answer)),
  };
}
