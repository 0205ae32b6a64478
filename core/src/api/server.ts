import { shape, truth } from '../schemas/shape';
import { content, contracts, json } from './contract';

/** Messages of the live connection; screens refetch what they name. */
export type LiveTopic =
  | 'samples'
  | 'alarms'
  | 'flags'
  | 'boards'
  | 'metrics'
  | 'logs'
  | 'notices'
  | 'indicators'
  /** The database cannot be reached, so shown data may be stale. */
  | 'away'
  /** It can be reached again, and messages may have been missed. */
  | 'everything';
export interface LiveMessage {
  readonly topic: LiveTopic;
  readonly ids: readonly string[];
}

export const healthApi = contracts({
  'GET /api/health': {
    access: 'anybody',
    summary: 'Checks whether the server can reach its database.',
    answer: json(shape({ ok: truth() })),
    errors: { 503: 'NOT_READY when it cannot' },
  },
});

export const liveApi = contracts({
  'GET /api/live': {
    access: 'viewer',
    summary: 'Server-sent events about changes, so that screens refetch.',
    answer: content(
      'text/event-stream',
      'event "change" with { topic: samples | alarms | flags | boards | metrics | everything …, ids }; without ids for callers who do not see every plant. Event "rights" when the rights of the caller have changed. The stream ends with it, and with the session.',
    ),
  },
});
