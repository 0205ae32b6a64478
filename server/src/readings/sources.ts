import type { Interval, ProvenanceSource } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, type Queryable } from '../db/database';

/** Where the samples of a metric in a window came from: files first, then pushes. */
export async function sourcesOf(
  db: Queryable,
  metricId: string,
  window: Interval,
): Promise<ProvenanceSource[]> {
  const files = await all<ProvenanceSource>(
    db,
    `select 'file' as kind, intake.file_name as name, ${ms('intake.finished_at', 'importedAt')},
            (fed.added + fed.corrected)::float8 as samples
     from intake_metric fed join intake on intake.id = fed.intake_id
     where fed.metric_id = $1 and fed.added + fed.corrected > 0 and fed.first_t < $3 and fed.last_t >= $2
     order by intake.finished_at desc limit 20`,
    [metricId, moment(window.start), moment(window.end)],
  );
  const pushes = await all<ProvenanceSource>(
    db,
    `select 'push' as kind, token.name, null as "importedAt", sum(pushed.samples)::float8 as samples
     from push_day pushed join push_token token on token.id = pushed.token_id
     where pushed.metric_id = $1 and pushed.day >= ($2::timestamptz at time zone 'UTC')::date
       and pushed.day <= ($3::timestamptz at time zone 'UTC')::date
     group by token.name order by token.name limit 20`,
    [metricId, moment(window.start), moment(window.end)],
  );
  return [...files, ...pushes];
}
