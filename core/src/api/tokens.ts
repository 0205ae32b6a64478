import { newTokenSchema } from '../schemas/forms';
import { mapSeriesSchema, pushRuleSchema } from '../schemas/push';
import {
  amount,
  amountOrNull,
  dictionary,
  list,
  shape,
  text,
  textOrNull,
  type TypeOf,
} from '../schemas/shape';
import { contracts, json, nothing, type SentFor } from './contract';

/**
 * How a token's exposition text is matched to metrics, and which value to keep when values of one push
 * collide.
 */
export type PushRule = TypeOf<typeof pushRuleSchema>;

const pushToken = shape({
  id: text(),
  name: text(),
  createdAt: amount(),
  createdBy: text(),
  lastUsedAt: amountOrNull(),
  /** The plant it writes at; null = all. */
  plantId: textOrNull(),
  plantName: textOrNull(),
  /** How many metrics it is limited to; null = not limited. */
  metrics: amountOrNull(),
  /** Refused from then on; null = until it is revoked. */
  endsAt: amountOrNull(),
  rule: pushRuleSchema.required(),
  /** Received series waiting to be mapped. */
  waiting: amount(),
});
export type PushToken = TypeOf<typeof pushToken>;

const heardSeries = shape({
  /** name{label="value",…} with the labels in order. */
  series: text(),
  name: text(),
  labels: dictionary(text()),
  /** The metric it feeds; null = not mapped. */
  metricId: textOrNull(),
  firstHeard: amount(),
  lastHeard: amount(),
  lastValue: amountOrNull(),
  /** Samples received while unmapped; they are not stored. */
  heard: amount(),
});
/** A series received in exposition text. Times in ms. */
export type HeardSeries = TypeOf<typeof heardSeries>;

/** Maps a received series to an existing metric, a new one, or none. */
export type SeriesMapping = SentFor<typeof mapSeriesSchema>;

const GONE = 'NOT_FOUND for a token that is revoked';

export const tokensApi = contracts({
  'GET /api/push-tokens': {
    access: 'analyst',
    summary: 'Push tokens in use, without the secret tokens themselves.',
    answer: json(list(pushToken), 'waiting = received series without a metric'),
  },
  'POST /api/push-tokens': {
    access: 'analyst',
    summary: 'Creates a push token. Only this answer contains it.',
    body: newTokenSchema,
    answer: json(shape({ id: text(), token: text() })),
    errors: {
      422: 'BAD_INPUT when it would write at plants or metrics the caller does not reach, or has ended',
    },
  },
  'DELETE /api/push-tokens/:id': {
    access: 'analyst',
    summary: 'Revokes a push token; pushes with it are refused from now on.',
    answer: nothing,
    errors: { 404: GONE },
  },
  'PUT /api/push-tokens/:id/rule': {
    access: 'analyst',
    summary:
      'Sets how exposition text of a token is matched: the labels for asset and metric, whether unknown series wait or are created, and which value to keep when values of one push collide.',
    body: pushRuleSchema,
    answer: nothing,
    errors: { 404: GONE, 422: 'BAD_INPUT when metrics are to be created but no asset is given' },
  },
  'GET /api/push-tokens/:id/heard': {
    access: 'analyst',
    summary: 'Series received with a token, unmapped ones first.',
    answer: json(list(heardSeries)),
  },
  'POST /api/push-tokens/:id/heard': {
    access: 'analyst',
    summary:
      'Maps a received series to a metric, creates one for it, or unmaps it. Applies from the next push on.',
    body: mapSeriesSchema,
    answer: json(shape({ metricId: textOrNull() })),
    errors: { 404: 'NOT_FOUND for an unknown series' },
  },
});
