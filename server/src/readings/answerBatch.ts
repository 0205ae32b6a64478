import { writeFrame } from '@vivid-beacon/core';
import { SENT, type Call, type Sent } from '../http/endpoint';
import { checked, toAnswer } from '../http/errors';
import { computeReading, madeOf } from './answerReading';
import { askContract, type AskKind } from '@vivid-beacon/core/src/api/readings';
import { READING_OF_ASK } from './asks';
import { BYTES } from '@vivid-beacon/core/src/api/samples';
import { SharedReads } from './sharedReads';

/** One of several readings that are asked for together. */
export interface BoardAsk {
  readonly kind: AskKind;
  /** The body of the endpoint of that kind. */
  readonly ask: object;
}

/**
 * Answers several requests in one stream, each in its own frame as soon as it is ready, so that a slow one
 * does not delay the others. Errors are sent in their frame.
 */
export async function answerBatch(
  { app, db, response }: Pick<Call, 'app' | 'db' | 'response'>,
  asks: readonly BoardAsk[],
): Promise<Sent> {
  const reads = new SharedReads();
  response.setHeader('Content-Type', BYTES);
  const send = (index: number, status: number, columns: boolean, body: Uint8Array): void => {
    if (!response.destroyed) response.write(writeFrame({ index, status, columns, body }));
  };
  await Promise.all(
    asks.map(async ({ kind, ask }, i) => {
      try {
        const body = (await checked<unknown>(askContract(kind).body, ask)) as never;
        const answer = await computeReading({ app, db }, READING_OF_ASK[kind], body, reads);
        const { type, bytes } = 'made' in answer ? answer.made : madeOf(answer.here);
        send(i, 200, type === BYTES, bytes);
      } catch (error) {
        const { status, body } = toAnswer(app, error, `/api/readings/${kind}`);
        send(i, status, false, madeOf(body).bytes);
      }
    }),
  );
  response.end();
  return SENT;
}
