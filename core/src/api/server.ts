import { shape, truth } from '../schemas/shape';
import { content, contracts, json } from './contract';

/** What the server tells over the live connection; screens read again what it names. */
export type LiveTopic =
  | 'samples'
  | 'alarms'
  | 'flags'
  | 'boards'
  | 'metrics'
  | 'logs'
  | 'notices'
  | 'indicators'
  /** The database cannot be reached: what is shown may be old. */
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
    summary: 'Tells whether the server can reach its database.',
    answer: json(shape({ ok: truth() })),
    errors: { 503: 'NOT_READY when it cannot' },
  },
});

export const liveApi = contracts({
  'GET /api/live': {
    access: 'viewer',
    summary: 'Server-sent events: what changed, so that a screen reads it again.',
    answer: content(
      'text/event-stream',
      'event "change" with { topic: samples | alarms | flags | boards | metrics | everything …, ids }. It ends with the session.',
    ),
  },
});
