import type { Call, Sent } from '../http/endpoint';
import { budgetHere, ReadBudgetExceeded, withBudget } from '../db/readBudget';
import { BYTES } from '@vivid-beacon/core/src/api/samples';
import { sendColumns } from './columns';
import { readContext } from './readContext';
import type { ReadingHandler } from './readingHandler';
import type { SharedReads } from './sharedReads';

/** An answer as it is sent, made in another thread. */
export interface MadeAnswer {
  readonly type: string;
  readonly bytes: Uint8Array;
}

/** What is needed to answer: the app, and the database as the asker may see it. */
export type Asked = Pick<Call, 'app' | 'db'>;

/** A reading's answer, computed on the main thread or, if that would block others, in a worker thread. */
export async function computeReading<Ask, Answer>(
  { app, db }: Asked,
  { name, read }: ReadingHandler<Ask, Answer>,
  ask: Ask,
  reads?: SharedReads,
): Promise<{ readonly here: Answer } | { readonly made: MadeAnswer }> {
  const now = app.now();
  try {
    return { here: await read(readContext(withBudget(db, budgetHere()), now, reads), ask) };
  } catch (error) {
    if (!(error instanceof ReadBudgetExceeded)) throw error;
  }
  return { made: await app.workers.readings.run<MadeAnswer>('read', { name, ask, now, asker: db.asker }) };
}

/** Answers a call with a reading: with what is to be sent as JSON, or itself when it is bytes. */
export async function answerReading<Ask, Answer>(
  { app, db, response }: Pick<Call, 'app' | 'db' | 'response'>,
  reading: ReadingHandler<Ask, Answer>,
  ask: Ask,
): Promise<Exclude<Answer, Uint8Array> | Sent> {
  const answer = await computeReading({ app, db }, reading, ask);
  if ('here' in answer && !(answer.here instanceof Uint8Array)) {
    return answer.here as Exclude<Answer, Uint8Array>;
  }
  const { type, bytes } = 'made' in answer ? answer.made : { type: BYTES, bytes: answer.here as Uint8Array };
  return sendColumns(response, bytes, type);
}

/** A reading's answer for the server itself, wherever it was computed. */
export async function readInProcess<Ask, Answer>(
  asked: Asked,
  reading: ReadingHandler<Ask, Answer>,
  ask: Ask,
  reads?: SharedReads,
): Promise<Answer> {
  const answer = await computeReading(asked, reading, ask, reads);
  if ('here' in answer) return answer.here;
  return JSON.parse(new TextDecoder().decode(answer.made.bytes)) as Answer;
}

/** An answer as bytes, so that the main thread does not have to serialise it. */
export function madeOf(answer: unknown): MadeAnswer {
  if (answer instanceof Uint8Array) return { type: BYTES, bytes: answer };
  return {
    type: 'application/json; charset=utf-8',
    bytes: new TextEncoder().encode(JSON.stringify(answer)),
  };
}
