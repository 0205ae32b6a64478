import { writeFrame } from '@vivid-beacon/core';
import type { Call } from '../http/endpoint';
import { checked, toAnswer } from '../http/errors';
import { computeReading, madeOf } from './answerReading';
import { ASKS, type AskName } from './asks';
import { BYTES } from './columns';
import { SharedReads } from './sharedReads';

/** One of several readings that are asked for together. */
export interface BoardAsk {
  readonly kind: AskName;
  /** The body of the endpoint of that kind. */
  readonly ask: object;
}

/**
 * Answers several asks in one stream, each as a frame of its own as soon as it is there, so that a slow one holds up no
 * other. One that fails says so in its frame.
 */
export async function answerTogether(
  { app, db, response }: Pick<Call<unknown, unknown>, 'app' | 'db' | 'response'>,
  asks: readonly BoardAsk[],
): Promise<undefined> {
  const reads = new SharedReads();
  response.setHeader('Content-Type', BYTES);
  const send = (index: number, status: number, columns: boolean, body: Uint8Array): void => {
    if (!response.destroyed) response.write(writeFrame({ index, status, columns, body }));
  };
  await Promise.all(
    asks.map(async ({ kind, ask }, i) => {
      try {
        const { schema, reading, inColumns } = ASKS[kind];
        const body = (await checked(schema, ask)) as never;
        const answer = await computeReading({ app, db }, inColumns ?? reading, body, reads);
        const { type, bytes } = 'made' in answer ? answer.made : madeOf(answer.here);
        send(i, 200, type === BYTES, bytes);
      } catch (error) {
        const { status, body } = toAnswer(app, error, `/api/readings/${kind}`);
        send(i, status, false, madeOf(body).bytes);
      }
    }),
  );
  response.end();
  return undefined;
}
