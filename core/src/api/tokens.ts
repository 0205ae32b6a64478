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

/** How a token's exposition text is matched to metrics, and what holds where values of one push meet. */
export type PushRule = TypeOf<typeof pushRuleSchema>;

const pushToken = shape({
  id: text(),
  name: text(),
  createdAt: amount(),
  createdBy: text(),
  lastUsedAt: amountOrNull(),
  rule: pushRuleSchema.required(),
  /** Series that were heard and wait to be mapped. */
  waiting: amount(),
});
export type PushToken = TypeOf<typeof pushToken>;

const heardSeries = shape({
  /** name{label="value",…} with the labels in order. */
  series: text(),
  name: text(),
  labels: dictionary(text()),
  /** The metric it feeds; null = it waits. */
  metricId: textOrNull(),
  firstHeard: amount(),
  lastHeard: amount(),
  lastValue: amountOrNull(),
  /** Samples that came while it waited; none of them is stored. */
  heard: amount(),
});
/** A series that was heard in exposition text. Times in ms. */
export type HeardSeries = TypeOf<typeof heardSeries>;

/** Gives a heard series a metric that is there, a new one, or none. */
export type SeriesMapping = SentFor<typeof mapSeriesSchema>;

const GONE = 'NOT_FOUND for a token that is revoked';

export const tokensApi = contracts({
  'GET /api/push-tokens': {
    access: 'analyst',
    summary: 'Lists the push tokens in use; never the tokens themselves.',
    answer: json(list(pushToken), 'waiting = series heard without a metric'),
  },
  'POST /api/push-tokens': {
    access: 'analyst',
    summary: 'Makes a push token. It is shown in this answer only.',
    body: newTokenSchema,
    answer: json(shape({ id: text(), token: text() })),
  },
  'DELETE /api/push-tokens/:id': {
    access: 'analyst',
    summary: 'Revokes a push token; what sends with it is refused from now on.',
    answer: nothing,
    errors: { 404: GONE },
  },
  'PUT /api/push-tokens/:id/rule': {
    access: 'analyst',
    summary:
      'Sets how exposition text of a token is matched: which label names the asset and which the metric, whether unknown series wait or are made, and what holds where values of one push meet.',
    body: pushRuleSchema,
    answer: nothing,
    errors: { 404: GONE, 422: 'BAD_INPUT when metrics are to be made but nothing says where' },
  },
  'GET /api/push-tokens/:id/heard': {
    access: 'analyst',
    summary: 'Series that were heard with a token: those that wait to be mapped first.',
    answer: json(list(heardSeries)),
  },
  'POST /api/push-tokens/:id/heard': {
    access: 'analyst',
    summary:
      'Maps a heard series to a metric, makes one for it, or lets it wait again. Holds from the next push on.',
    body: mapSeriesSchema,
    answer: json(shape({ metricId: textOrNull() })),
    errors: { 404: 'NOT_FOUND for a series that was never heard' },
  },
});
