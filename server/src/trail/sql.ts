import type { PageOf, TrailCheck, TrailEntry } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { Conditions, findPage } from '../db/conditions';
import { all, one, type Queryable } from '../db/database';
import type { PageRange } from '../db/pages';

/** What entries are looked for by; absent fields match everything. */
export interface TrailFilter {
  readonly words: readonly string[];
  readonly personId?: string;
  readonly subject?: string;
  readonly subjectId?: string;
  readonly plantId?: string;
  readonly from?: number;
  readonly to?: number;
}

const ENTRY = `trail.seq::text as id, ${ms('trail.at', 'at')}, trail.person_id as "personId",
  trail.person_name as "personName", trail.address, trail.request, trail.action, trail.subject,
  trail.subject_id as "subjectId", trail.name, trail.plant_id as "plantId", place.plant_name as "plantName",
  trail.before, trail.after, encode(trail.hash, 'hex') as hash`;
const FROM = 'trail left join asset_place place on place.asset_id = trail.plant_id';

function conditionsOf({ words, personId, subject, subjectId, plantId, from, to }: TrailFilter): Conditions {
  return new Conditions(null)
    .and(personId, (at) => `trail.person_id = ${at}::bigint`)
    .and(subject, (at) => `trail.subject = ${at}`)
    .and(subjectId, (at) => `trail.subject_id = ${at}`)
    .and(plantId, (at) => `trail.plant_id = ${at}::bigint`)
    .and(from === undefined ? undefined : moment(from), (at) => `trail.at >= ${at}::timestamptz`)
    .and(to === undefined ? undefined : moment(to), (at) => `trail.at < ${at}::timestamptz`)
    .words(words, [
      'trail.name',
      'trail.person_name',
      'trail.request',
      'trail.before::text',
      'trail.after::text',
    ]);
}

/** Entries, newest first. */
export function pageOfTrail(
  db: Queryable,
  filter: TrailFilter,
  page: PageRange,
): Promise<PageOf<TrailEntry>> {
  return findPage(
    db,
    {
      from: 'trail',
      id: 'trail.seq::text as id',
      select: `select ${ENTRY} from ${FROM}`,
      conditions: conditionsOf(filter),
      order: 'trail.seq desc',
      idColumn: 'trail.seq',
    },
    page,
  );
}

export function subjectsOfTrail(db: Queryable): Promise<{ subject: string; entries: number }[]> {
  return all(db, 'select subject, count(*)::int as entries from trail group by subject order by subject');
}

const IN_ONE = 1000;

/** Entries, oldest first, with both hashes; read in portions. */
export async function* readTrail(
  db: Queryable,
  filter: TrailFilter,
): AsyncGenerator<TrailEntry & { readonly previousHash: string }> {
  let after = '0';
  for (;;) {
    const conditions = conditionsOf(filter).and(after, (at) => `trail.seq > ${at}::bigint`);
    const rows = await all<TrailEntry & { previousHash: string }>(
      db,
      `select ${ENTRY}, encode(trail.previous_hash, 'hex') as "previousHash" from ${FROM} ${conditions.where}
       order by trail.seq limit ${IN_ONE}`,
      conditions.values,
    );
    yield* rows;
    if (rows.length < IN_ONE) return;
    after = rows[rows.length - 1].id;
  }
}

/** Entries checked in one statement: some tenths of a second. */
const CHECKED_IN_ONE = 10_000;

/** Where a portion begins: the entry before it. */
interface Link {
  readonly seq: string;
  readonly hash: string;
}

/**
 * Computes every hash anew, in the database, by the function that made them; in portions, so that no statement runs long.
 *
 * @param db a transaction that sees one state of the trail (AS_OF_NOW).
 */
export async function checkTrail(db: Queryable, inOne = CHECKED_IN_ONE): Promise<TrailCheck> {
  let last = (await one<Link>(db, `select seq::text as seq, encode(hash, 'hex') as hash from trail_start`))!;
  let entries = 0;
  for (;;) {
    const part = (await one<{ n: number; broken: number | null; seq: string | null; hash: string | null }>(
      db,
      `with part as (select trail as entry, seq, hash, previous_hash from trail where seq > $1::bigint order by seq limit $3),
       linked as (
         select seq, hash, previous_hash = lag(hash, 1, decode($2, 'hex')) over (order by seq)
                and seq = lag(seq, 1, $1::bigint) over (order by seq) + 1 and trail_hash(entry) = hash as fits
         from part)
       select count(*)::int as n, (min(seq) filter (where not fits))::float8 as broken, max(seq)::text as seq,
              (array_agg(encode(hash, 'hex') order by seq desc))[1] as hash from linked`,
      [last.seq, last.hash, inOne],
    ))!;
    entries += part.n;
    if (part.seq !== null && part.hash !== null) last = { seq: part.seq, hash: part.hash };
    if (part.broken !== null || part.n < inOne) {
      return {
        entries,
        whole: part.broken === null,
        broken: part.broken,
        newest: entries === 0 ? null : last.hash,
      };
    }
  }
}

/** Notes what changes no row: a sign-in, a refusal. */
export async function noteInTrail(
  db: Queryable,
  entry: { action: string; subject: string; subjectId: string | null; name: string | null; after?: object },
): Promise<void> {
  await db.query('select trail_add($1, $2, $3, $4, null, null, $5::jsonb)', [
    entry.action,
    entry.subject,
    entry.subjectId,
    entry.name,
    entry.after === undefined ? null : JSON.stringify(entry.after),
  ]);
}

/** Cuts entries off that are older than so many days. @returns how many. */
export async function cutTrail(db: Queryable, days: number, now: number): Promise<number> {
  return (await one<{ n: number }>(db, 'select trail_cut($1, $2)::int as n', [days, moment(now)]))!.n;
}
