import * as yup from 'yup';
import { endpoint } from '../http/endpoint';
import { answerReading } from './answerReading';
import { answerTogether, type BoardAsk } from './answerTogether';
import { ASK_KINDS, ASKS, MOST_ASKS } from './asks';
import { wantsColumns } from './columns';

/* Readings are asked for by POST because a measure with its window does not fit an address; they change nothing. */

export const readingEndpoints = [
  endpoint({
    method: 'post',
    path: '/api/readings',
    access: 'viewer',
    summary: 'Several readings at once, as a board asks for them: what they read in common is read once.',
    answer:
      'application/octet-stream: one frame an ask, as each is there. u32 little-endian number of the ask, status, 1 for columns or 0 for JSON, ' +
      'length; then the body, padded to 8 bytes. A body is what the endpoint of that kind answers; status 422, 404 … with { error } for that ask alone.',
    body: yup
      .object({
        asks: yup
          .array(
            yup
              .object({
                kind: yup
                  .string()
                  .oneOf([...ASK_KINDS])
                  .required(),
                ask: yup.object().required(),
              })
              .noUnknown()
              .required(),
          )
          .min(1)
          .max(MOST_ASKS)
          .required(),
      })
      .noUnknown(),
    handle: (call) => answerTogether(call, call.body.asks as BoardAsk[]),
  }),
  ...ASK_KINDS.map((kind) => {
    const { summary, answer, schema, reading, inColumns } = ASKS[kind];
    return endpoint({
      method: 'post',
      path: `/api/readings/${kind}`,
      access: 'viewer',
      summary,
      answer,
      body: schema,
      handle: (call) =>
        answerReading(
          call,
          inColumns && wantsColumns(call.request) ? inColumns : reading,
          call.body as never,
        ),
    });
  }),
];
