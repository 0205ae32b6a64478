import type { HeardSeries } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';
import { KEY_COLUMNS, type MetricKeyRow } from '../metrics/sql';

/** Most unmapped series stored per token. */
export const MAX_UNMAPPED = 5000;

export interface HeardNow {
  readonly series: string;
  readonly name: string;
  readonly labels: Readonly<Record<string, string>>;
  readonly value: number;
  readonly count: number;
}

/** Metrics that the series of a token are mapped to. */
export async function mappedSeries(
  db: Queryable,
  tokenId: string,
  series: readonly string[],
): Promise<Map<string, MetricKeyRow>> {
  const rows = await all<MetricKeyRow & { series: string }>(
    db,
    `select heard.series, ${KEY_COLUMNS}
     from heard_series heard join metric on metric.id = heard.metric_id
     where heard.token_id = $1 and heard.series = any($2::text[])
       and metric.origin = 'samples' and metric.removed_at is null`,
    [tokenId, series],
  );
  return new Map(rows.map(({ series: name, ...row }) => [name, row]));
}

/** Records series without a metric, with their newest value; new ones only while there is room. */
export async function noteHeard(
  db: Queryable,
  tokenId: string,
  heard: readonly HeardNow[],
  at: number,
): Promise<void> {
  await db.query(
    `insert into heard_series as known (token_id, series, name, labels, first_heard, last_heard, last_v, heard)
     select $1, came.series, came.name, came.labels::jsonb, $6, $6, came.v, came.n
     from unnest($2::text[], $3::text[], $4::text[], $5::float8[], $7::bigint[]) as came(series, name, labels, v, n)
     where exists (select 1 from heard_series own where own.token_id = $1 and own.series = came.series)
        or (select count(*) from heard_series own where own.token_id = $1) < $8
     on conflict (token_id, series) do update
       set last_heard = excluded.last_heard, last_v = excluded.last_v, heard = known.heard + excluded.heard`,
    [
      tokenId,
      heard.map(({ series }) => series),
      heard.map(({ name }) => name),
      heard.map(({ labels }) => JSON.stringify(labels)),
      heard.map(({ value }) => value),
      moment(at),
      heard.map(({ count }) => count),
      MAX_UNMAPPED,
    ],
  );
}

/** Series of a token, those that wait first. */
export function listHeard(db: Queryable, tokenId: string): Promise<HeardSeries[]> {
  return all(
    db,
    `select series, name, labels, metric_id as "metricId", ${ms('first_heard', 'firstHeard')},
            ${ms('last_heard', 'lastHeard')}, case when last_v = 'NaN' then null else last_v end as "lastValue",
            heard::float8 as heard
     from heard_series where token_id = $1 order by metric_id is not null, series limit $2`,
    [tokenId, MAX_UNMAPPED],
  );
}

/** @returns false for an unknown series. */
export async function mapSeries(
  db: Queryable,
  tokenId: string,
  series: string,
  metricId: string | null,
): Promise<boolean> {
  const row = await one(
    db,
    'update heard_series set metric_id = $3 where token_id = $1 and series = $2 returning series',
    [tokenId, series, metricId],
  );
  return row !== undefined;
}
