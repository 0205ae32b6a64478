import type { Queryable } from '../db/database';

/** Sets values of a reference series; null takes the value of that period away. */
export async function writeReferenceValues(
  db: Queryable,
  metricId: string,
  values: readonly { readonly start: string; readonly value: number | null }[],
): Promise<void> {
  // Of several values for one period the last holds.
  const byStart = new Map(values.map(({ start, value }) => [start, value]));
  const gone = [...byStart].filter(([, value]) => value === null).map(([start]) => start);
  const kept = [...byStart].filter(([, value]) => value !== null);
  await db.query('delete from reference_value where metric_id = $1 and start_date = any($2::date[])', [
    metricId,
    gone,
  ]);
  await db.query(
    `insert into reference_value (metric_id, start_date, value)
     select $1::bigint, * from unnest($2::date[], $3::float8[])
     on conflict (metric_id, start_date) do update set value = excluded.value`,
    [metricId, kept.map(([start]) => start), kept.map(([, value]) => value)],
  );
}
