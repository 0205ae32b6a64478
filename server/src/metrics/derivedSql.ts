import type { Binding, DerivedDefinition, DerivedWay } from '@vivid-beacon/core';
import { moment } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

export interface DerivedRow extends DerivedDefinition {
  readonly metricId: string;
}

const DERIVED = `metric_id as "metricId", expression, bindings, way`;

export function findDerived(db: Queryable, metricId: string): Promise<DerivedRow | undefined> {
  return one(db, `select ${DERIVED} from derived_metric where metric_id = $1`, [metricId]);
}

export function listDerived(db: Queryable): Promise<DerivedRow[]> {
  return all(db, `select ${DERIVED} from derived_metric`);
}

export async function writeDerived(
  db: Queryable,
  metricId: string,
  definition: { expression: string; bindings: Readonly<Record<string, Binding>>; way: DerivedWay },
  at: number,
): Promise<void> {
  await db.query(
    `insert into derived_metric (metric_id, expression, bindings, way, updated_at) values ($1, $2, $3::jsonb, $4, $5)
     on conflict (metric_id) do update set expression = excluded.expression, bindings = excluded.bindings,
       way = excluded.way, updated_at = excluded.updated_at`,
    [metricId, definition.expression, JSON.stringify(definition.bindings), definition.way, moment(at)],
  );
}

/** An equivalence factor with its values, each from a local date on. */
export interface FactorRow {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
  readonly source: string;
  readonly values: readonly { readonly from: string; readonly value: number }[];
}

export function listFactors(db: Queryable): Promise<FactorRow[]> {
  return all(
    db,
    `select factor.id, factor.name, factor.unit, factor.source,
            coalesce(jsonb_agg(jsonb_build_object('from', to_char(each.from_date, 'YYYY-MM-DD'), 'value', each.value)
                               order by each.from_date) filter (where each.factor_id is not null), '[]') as values
     from equivalence_factor factor left join equivalence_value each on each.factor_id = factor.id
     group by factor.id order by lower(factor.name)`,
  );
}

/** @returns undefined when another factor has this name. */
export async function writeFactor(
  db: Queryable,
  factor: Omit<FactorRow, 'id'> & { id: string | null },
): Promise<string | undefined> {
  const row =
    factor.id === null
      ? await one<{ id: string }>(
          db,
          `insert into equivalence_factor (name, unit, source) values ($1, $2, $3) on conflict do nothing returning id`,
          [factor.name, factor.unit, factor.source],
        )
      : await one<{ id: string }>(
          db,
          `update equivalence_factor set name = $2, unit = $3, source = $4 where id = $1
             and not exists (select 1 from equivalence_factor o where lower(o.name) = lower($2) and o.id <> $1)
           returning id`,
          [factor.id, factor.name, factor.unit, factor.source],
        );
  if (!row) return undefined;
  await db.query('delete from equivalence_value where factor_id = $1', [row.id]);
  await db.query(
    `insert into equivalence_value (factor_id, from_date, value)
     select $1::bigint, * from unnest($2::date[], $3::float8[])`,
    [row.id, factor.values.map(({ from }) => from), factor.values.map(({ value }) => value)],
  );
  return row.id;
}
