import type { AppContext } from '../http/appContext';
import type { Call } from '../http/endpoint';
import { budgetHere, TooMuchHere, withBudget } from '../db/readBudget';
import { BYTES, sendColumns } from './columns';
import { READINGS, type AskOf, type Reading, type ReadingName } from './readings';

/** An answer as it is sent, made in another thread. */
export interface MadeAnswer {
  readonly type: string;
  readonly bytes: Uint8Array;
}

/** A reading's answer, computed here or, when that would hold up everybody else, in a thread of its own. */
export async function computeReading<Name extends ReadingName>(
  app: AppContext,
  name: Name,
  ask: AskOf<Name>,
): Promise<{ readonly here: unknown } | { readonly made: MadeAnswer }> {
  const now = app.now();
  try {
    const read = READINGS[name] as Reading<AskOf<Name>>;
    return { here: await read(withBudget(app.pool, budgetHere()), ask, now) };
  } catch (error) {
    if (!(error instanceof TooMuchHere)) throw error;
  }
  return { made: await app.workers.readings.run<MadeAnswer>('read', { name, ask, now }) };
}

/** Answers a call with a reading. @returns what is sent as JSON; undefined when the answer has gone as bytes. */
export async function answerReading<Name extends ReadingName>(
  { app, response }: Pick<Call<unknown, unknown>, 'app' | 'response'>,
  name: Name,
  ask: AskOf<Name>,
): Promise<unknown> {
  const answer = await computeReading(app, name, ask);
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
