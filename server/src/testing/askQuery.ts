import type { MeasureValues, QueryAnswer, QueryGroup, QueryMeasure, ErrorBody } from '@vivid-beacon/core';
import type { Visitor } from './testServer';

type OfOne = Partial<QueryMeasure> & Pick<QueryMeasure, 'select'>;

/** The answer to a question with a single measure: its groups with that measure's values merged in. */
export interface AnswerOfOne extends Omit<QueryAnswer, 'groups'> {
  readonly groups: readonly (MeasureValues & Omit<QueryGroup, 'measures'>)[];
  readonly error?: ErrorBody;
}

/** A question with a single measure, written out as it is sent. */
export function askOneMetric({
  select,
  summary,
  per,
  perAttribute,
  band,
  ...rest
}: Record<string, unknown>): object {
  return { measures: [{ select, summary, per, perAttribute, band } as OfOne], ...rest };
}

/** Asks the planner about a single measure. */
export async function askQuery(
  session: Visitor,
  query: object,
): Promise<{ status: number; body: AnswerOfOne }> {
  const { status, body } = await session.call<QueryAnswer & { error?: ErrorBody }>(
    'POST',
    '/api/readings/query',
    askOneMetric(query as Record<string, unknown>),
  );
  const groups = (body.groups ?? []).map(({ measures, ...group }) => ({ ...group, ...measures[0] }));
  return { status, body: { ...body, groups } };
}
