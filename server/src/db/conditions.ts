import type { PageOf } from '@vivid-beacon/core';
import { all, one, type Queryable } from './database';
import { containing, type PageRange } from './pages';
import type { Reader } from './reader';

/** What a row must be of, for the asker to see it: $1 are their plants, null = all. Over `asset_place place`. */
export const SEEN_PLANT = '($1::bigint[] is null or place.plant_id = any($1::bigint[]))';

/** Conditions of a statement with the values they speak of; the first is that the asker may see the row. */
export class Conditions {
  readonly values: unknown[] = [];
  private readonly parts: string[] = [];

  /** @param db who asks; null = of what belongs to no plant. */
  constructor(db: Reader | null) {
    if (db) this.and(db.asker.sites, () => SEEN_PLANT);
  }

  /** One more condition, about a value; undefined = the condition does not matter. */
  and(value: unknown, condition: (place: string) => string): this {
    if (value !== undefined) this.parts.push(condition(`$${this.values.push(value)}`));
    return this;
  }

  /** Each of these words must stand in one of these columns, whatever its letter case. */
  words(words: readonly string[], columns: readonly string[]): this {
    for (const word of words) {
      this.and(
        containing(word),
        (at) => `(${columns.map((each) => `${each} ilike ${at}::text`).join(' or ')})`,
      );
    }
    return this;
  }

  /** The place of one more value, for a condition that speaks of several. */
  value(value: unknown): string {
    return `$${this.values.push(value)}`;
  }

  plain(condition: string): this {
    this.parts.push(condition);
    return this;
  }

  get where(): string {
    return this.parts.length === 0 ? '' : `where ${this.parts.join(' and ')}`;
  }
}

/**
 * A page of a list, and how long the list is: first the ids of the page from no more tables than conditions and order
 * speak of, then what is told of those few.
 *
 * @param from "alarm join …". @param id "alarm.id". @param select what is told, up to its joins. @param order ends with
 *   something that no two rows share; it may speak of values of its own.
 */
export async function findPage<Row extends { readonly id: string }>(
  db: Queryable,
  {
    from,
    id,
    idColumn = id,
    select,
    conditions,
    order,
  }: {
    readonly from: string;
    readonly id: string;
    /** The column behind `id`, where that is an expression. */
    readonly idColumn?: string;
    readonly select: string;
    readonly conditions: Conditions;
    readonly order: string | ((value: (value: unknown) => string) => string);
  },
  { offset, limit }: PageRange,
): Promise<PageOf<Row>> {
  const { where, values } = conditions;
  const paged = [...values];
  const value = (each: unknown): string => `$${paged.push(each)}`;
  const by = typeof order === 'string' ? order : order(value);
  const found = await all<{ id: string; total: number }>(
    db,
    `select ${id}, (count(*) over ())::int as total from ${from} ${where}
     order by ${by} offset ${value(offset)}::int limit ${value(limit)}::int`,
    paged,
  );
  if (found.length === 0) {
    // An empty page tells no total: it lies behind the end, or none was wanted.
    const text = `select count(*)::int as n from ${from} ${where}`;
    return { items: [], total: (await one<{ n: number }>(db, text, values))!.n };
  }
  const ids = found.map((each) => each.id);
  const rows = await all<Row>(db, `${select} where ${idColumn} = any($1::bigint[])`, [ids]);
  const byId = new Map(rows.map((row) => [row.id, row]));
  // Who is gone between the two statements is left out.
  return { items: ids.flatMap((each) => byId.get(each) ?? []), total: found[0].total };
}
