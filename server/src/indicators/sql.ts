import type { IndicatorDefinition, IndicatorVersion, Level, PageOf, PeriodTarget } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { Conditions, findPage, SEEN_PLANT } from '../db/conditions';
import { all, one, type Queryable } from '../db/database';
import type { PageRange } from '../db/pages';
import type { Reader } from '../db/reader';

/** An indicator with the definition in force. */
export interface IndicatorRow {
  readonly id: string;
  readonly version: number;
  readonly definition: IndicatorDefinition;
  readonly assetName: string;
  /** Names of its asset from the plant down. */
  readonly place: string;
  readonly plantId: string;
  readonly ownerName: string | null;
  /** The level it was on when it was last judged; null = it was not yet. */
  readonly keptLevel: Level | null;
}

const INDICATORS = `select indicator.id, indicator.version, version.definition, asset.name as "assetName",
    place.title as place, place.plant_id as "plantId", owner.name as "ownerName", kept.level as "keptLevel"
  from indicator
  join indicator_version version on version.indicator_id = indicator.id and version.version = indicator.version
  join asset on asset.id = indicator.asset_id
  join asset_place place on place.asset_id = asset.id
  left join person owner on owner.id = (version.definition ->> 'ownerId')::bigint
  left join indicator_level kept on kept.indicator_id = indicator.id`;
const THERE = 'indicator.removed_at is null';

export function listIndicators(db: Reader): Promise<IndicatorRow[]> {
  return all(
    db,
    `${INDICATORS} where ${SEEN_PLANT} and ${THERE}
     order by indicator.name collate natural_order, asset.name, indicator.id`,
    [db.asker.sites],
  );
}

/** Filter of indicators; absent fields match everything. */
export interface IndicatorFilter {
  readonly ids?: readonly string[];
  /** Words that must all occur in its name or in the names of its asset from the plant down. */
  readonly words?: readonly string[];
}

/** A page of indicators: those whose level is not known yet, then by their kept level the worst first, then by name. */
export function pageOfIndicators(
  db: Reader,
  { ids, words = [] }: IndicatorFilter,
  page: PageRange,
): Promise<PageOf<IndicatorRow>> {
  return findPage(
    db,
    {
      from: `indicator join asset_place place on place.asset_id = indicator.asset_id
             left join indicator_level kept on kept.indicator_id = indicator.id`,
      id: 'indicator.id',
      select: INDICATORS,
      conditions: new Conditions(db)
        .plain(THERE)
        .and(ids, (at) => `indicator.id = any(${at}::bigint[])`)
        .words(words, ['indicator.name', 'place.title']),
      order: 'kept.severity nulls first, indicator.name collate natural_order, indicator.id',
    },
    page,
  );
}

export function findIndicator(db: Reader, id: string): Promise<IndicatorRow | undefined> {
  return one(db, `${INDICATORS} where ${SEEN_PLANT} and ${THERE} and indicator.id = $2`, [
    db.asker.sites,
    id,
  ]);
}

/** Every definition an indicator has had, newest first. */
export function listVersions(db: Queryable, id: string): Promise<IndicatorVersion[]> {
  return all(
    db,
    `select version.version, ${ms('version.valid_from', 'validFrom')}, coalesce(person.name, '') as by, version.definition
     from indicator_version version left join person on person.id = version.written_by
     where version.indicator_id = $1 order by version.version desc`,
    [id],
  );
}

/** The versions of several indicators at once. */
export async function versionsOf(
  db: Queryable,
  ids: readonly string[],
): Promise<Map<string, IndicatorVersion[]>> {
  const rows = await all<IndicatorVersion & { id: string }>(
    db,
    `select indicator_id as id, version, ${ms('valid_from', 'validFrom')}, '' as by, definition
     from indicator_version where indicator_id = any($1::bigint[]) order by indicator_id, version`,
    [ids],
  );
  const versions = new Map<string, IndicatorVersion[]>(ids.map((id) => [id, []]));
  for (const { id, ...version } of rows) versions.get(id)!.push(version);
  return versions;
}

/** Adds an indicator with its first definition. @returns undefined when the asset has one of this name. */
export async function addIndicator(
  db: Queryable,
  definition: IndicatorDefinition,
  personId: string | null,
  at: number,
): Promise<string | undefined> {
  const row = await one<{ id: string }>(
    db,
    'insert into indicator (name, asset_id) values ($1, $2) on conflict do nothing returning id',
    [definition.name, definition.assetId],
  );
  if (!row) return undefined;
  await addVersion(db, row.id, 1, definition, personId, at);
  return row.id;
}

async function addVersion(
  db: Queryable,
  id: string,
  version: number,
  definition: IndicatorDefinition,
  personId: string | null,
  at: number,
): Promise<void> {
  await db.query(
    `insert into indicator_version (indicator_id, version, valid_from, written_by, definition)
     values ($1, $2, $3, $4, $5::jsonb)`,
    [id, version, moment(at), personId, JSON.stringify(definition)],
  );
}

/**
 * Puts a new definition in force. In the caller's transaction.
 *
 * @param from the version it was written from. @returns false when that is not the one in force any more.
 */
export async function changeIndicator(
  db: Queryable,
  id: string,
  from: number,
  definition: IndicatorDefinition,
  personId: string,
  at: number,
): Promise<boolean> {
  const row = await one(
    db,
    `update indicator set version = version + 1, name = $3, asset_id = $4
     where id = $1 and version = $2 and removed_at is null returning id`,
    [id, from, definition.name, definition.assetId],
  );
  if (!row) return false;
  // What was found with the definition before says nothing of this one.
  await db.query('delete from indicator_level where indicator_id = $1', [id]);
  await addVersion(db, id, from + 1, definition, personId, at);
  return true;
}

/** @returns false when there is none. */
export async function removeIndicator(db: Queryable, id: string, at: number): Promise<boolean> {
  const row = await one(
    db,
    'update indicator set removed_at = $2 where id = $1 and removed_at is null returning id',
    [id, moment(at)],
  );
  return row !== undefined;
}

/** Does the asset have another indicator of this name? */
export async function nameTaken(
  db: Queryable,
  { assetId, name }: Pick<IndicatorDefinition, 'assetId' | 'name'>,
  id: string | null,
): Promise<boolean> {
  const row = await one(
    db,
    `select 1 from indicator where asset_id = $1 and lower(name) = lower($2) and removed_at is null
       and id is distinct from $3::bigint`,
    [assetId, name, id],
  );
  return row !== undefined;
}

/** Targets typed in, in order of time, by indicator. */
export async function targetsOf(db: Queryable, ids: readonly string[]): Promise<Map<string, PeriodTarget[]>> {
  const rows = await all<PeriodTarget & { id: string }>(
    db,
    `select indicator_id as id, to_char(start_date, 'YYYY-MM-DD') as start, value, month from indicator_target
     where indicator_id = any($1::bigint[]) order by indicator_id, month, start_date`,
    [ids],
  );
  const targets = new Map<string, PeriodTarget[]>(ids.map((id) => [id, []]));
  for (const { id, ...target } of rows) targets.get(id)!.push(target);
  return targets;
}

/** A target to set, or to take away (null). */
type TargetChange = Omit<PeriodTarget, 'value'> & { readonly value: number | null };

/** Sets targets by period; null takes one away. Of several for one period the last holds. */
export async function writeTargets(
  db: Queryable,
  id: string,
  values: readonly TargetChange[],
): Promise<void> {
  const last = [...new Map(values.map((each) => [`${each.month} ${each.start}`, each])).values()];
  await db.query(
    `delete from indicator_target using unnest($2::date[], $3::boolean[]) as gone (start_date, month)
     where indicator_id = $1 and indicator_target.start_date = gone.start_date and indicator_target.month = gone.month`,
    [id, last.map(({ start }) => start), last.map(({ month }) => month)],
  );
  const kept = last.filter(({ value }) => value !== null);
  await db.query(
    `insert into indicator_target (indicator_id, start_date, month, value)
     select $1::bigint, * from unnest($2::date[], $3::boolean[], $4::float8[])`,
    [id, kept.map(({ start }) => start), kept.map(({ month }) => month), kept.map(({ value }) => value)],
  );
}
