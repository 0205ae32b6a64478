import { BeaconError, type PushAnswer } from '@vivid-beacon/core';
import { JSON_TYPE, NDJSON, OPEN_METRICS, PLAIN } from '@vivid-beacon/core/src/api/samples';
import type { AppContext } from '../http/appContext';
import type { UsedToken } from '../http/appContext';
import { pushSamples } from './push';
import type { PushContext } from './pushContext';
import { readJsonPush, readNdjsonPush, readOpenMetricsPush, readPlainPush, type SentBatch } from './readPush';

/** A push as it came. */
export interface SentPush {
  readonly contentType: string;
  /** UTF-8. */
  readonly bytes: Uint8Array;
}

const READERS: Readonly<Record<string, (text: string, now: number) => SentBatch>> = {
  [JSON_TYPE]: (text) => readJsonPush(parsed(text)),
  [NDJSON]: readNdjsonPush,
  [OPEN_METRICS]: readOpenMetricsPush,
  [PLAIN]: readPlainPush,
};

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new BeaconError('BAD_SHAPE', `The request is not valid JSON: ${(error as Error).message}.`);
  }
}

/** Reads a push and stores its valid samples. @throws {BeaconError} when nothing of it can be read. */
export function takeInProcess(
  context: PushContext,
  token: UsedToken,
  { contentType, bytes }: SentPush,
): Promise<PushAnswer> {
  const type = contentType.split(';')[0].trim().toLowerCase();
  if (!Object.hasOwn(READERS, type)) {
    throw new BeaconError(
      'BAD_INPUT',
      `Send samples as ${JSON_TYPE}, ${NDJSON}, ${OPEN_METRICS} or ${PLAIN} (exposition text); the content type was "${type}".`,
      'content-type',
    );
  }
  return pushSamples(context, token, READERS[type](new TextDecoder().decode(bytes), context.now()));
}

/**
 * The same in the worker thread for pushes, with its own connections, so that readers never wait for pushes.
 */
export async function takePush(app: AppContext, token: UsedToken, sent: SentPush): Promise<PushAnswer> {
  const { pushes } = app.workers;
  return pushes
    ? pushes.run<PushAnswer>('take', { token, sent, now: app.now() })
    : takeInProcess(app, token, sent);
}
