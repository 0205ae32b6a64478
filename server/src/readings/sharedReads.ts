import DataLoader from 'dataloader';
import {
  BeaconError,
  DAY_MS,
  DEFAULT_CALENDAR,
  unionOf,
  type Interval,
  type Series,
  type WorkingCalendar,
} from '@vivid-beacon/core';
import { dayOf, type RollupGrain } from '@vivid-beacon/core/src/aggregation';
import { listCalendars } from '../calendars/sql';
import type { Reader } from '../db/reader';
import { findDerived, type DerivedRow } from '../metrics/derivedSql';
import { metricsById, type MetricRow } from '../metrics/sql';
import { readAround } from '../samples/readSeries';
import { readRollups } from '../samples/rollupSql';

/** Packed rollups of one metric and UTC day. */
type StoredDay = Awaited<ReturnType<typeof readRollups>>[number];

/** What is asked of one metric over UTC days; whoever asks first pays for the reading out of the budget of `db`. */
interface Ask {
  readonly db: Reader;
  readonly metricId: string;
  readonly days: Interval;
}

interface RollupAsk extends Ask {
  readonly grain: RollupGrain;
}

/** More than any board holds: all that is asked in one round goes into one statement. */
const AT_ONCE = 10_000;

/**
 * What the readouts of a board read, together: questions that come in one round are joined, so that each metric is looked
 * up once and each of its days is fetched once, whatever number of readouts show it.
 */
export class SharedReads {
  private readonly found = new DataLoader<{ db: Reader; id: string }, MetricRow | null, string>(
    async (asks) => {
      const rows = await metricsById(asks[0].db, [...new Set(asks.map(({ id }) => id))]);
      return asks.map(({ id }) => rows.get(id) ?? null);
    },
    { cacheKeyFn: ({ id }) => id, maxBatchSize: AT_ONCE },
  );

  private readonly rolledUp = new DataLoader<RollupAsk, readonly StoredDay[], string>(
    (asks) =>
      inGroups(joinDays(asks), async ({ db, days, grain, ids }) => {
        const byMetric = new Map<string, StoredDay[]>([...ids].map((id) => [id, []]));
        for (const day of await readRollups(db, [...ids], days.start, days.end, grain))
          byMetric.get(day.metricId)!.push(day);
        return byMetric;
      }),
    {
      cacheKeyFn: ({ metricId, days, grain }) => `${grain} ${metricId} ${days.start} ${days.end}`,
      maxBatchSize: AT_ONCE,
    },
  );

  private readonly sampled = new DataLoader<Ask, Series, string>(
    (asks) =>
      inGroups(
        asks.map((ask) => ({ ...ask, grain: null })),
        ({ db, days, ids }) => readAround(db, [...ids], days.start, days.end),
      ),
    { cacheKeyFn: ({ metricId, days }) => `${metricId} ${days.start} ${days.end}`, maxBatchSize: AT_ONCE },
  );

  private calendarList: Promise<{ plantId: string; calendar: WorkingCalendar }[]> | null = null;
  private readonly expressions = new Map<string, Promise<DerivedRow | undefined>>();

  /** @throws {BeaconError} NOT_FOUND naming the first id that is no metric. */
  async metrics(db: Reader, ids: readonly string[]): Promise<MetricRow[]> {
    const rows = await Promise.all(ids.map((id) => this.found.load({ db, id })));
    const missing = rows.indexOf(null);
    if (missing < 0) return rows as MetricRow[];
    throw new BeaconError(
      'NOT_FOUND',
      `Metric ${ids[missing]} does not exist any more. Pick another metric.`,
      'metricId',
    );
  }

  /** The working calendars of all plants that have one. */
  calendars(db: Reader): Promise<{ plantId: string; calendar: WorkingCalendar }[]> {
    this.calendarList ??= listCalendars(db);
    return this.calendarList;
  }

  /** The working calendar of a plant; around the clock where none is set. */
  async calendarOf(db: Reader, plantId: string): Promise<WorkingCalendar> {
    const found = (await this.calendars(db)).find((each) => each.plantId === plantId);
    return found?.calendar ?? DEFAULT_CALENDAR;
  }

  /** The expression of a derived metric. */
  expression(db: Reader, metricId: string): Promise<DerivedRow | undefined> {
    const known = this.expressions.get(metricId) ?? findDerived(db, metricId);
    this.expressions.set(metricId, known);
    return known;
  }

  /** Rollups of the UTC days that touch the interval, by metric. */
  async rollups(
    db: Reader,
    metricIds: readonly string[],
    { start, end }: Interval,
    grain: RollupGrain,
  ): Promise<Map<string, readonly StoredDay[]>> {
    const days = { start: dayOf(start), end: dayOf(end - 1) + DAY_MS };
    const read = await Promise.all(
      metricIds.map((metricId) => this.rolledUp.load({ db, metricId, days, grain })),
    );
    const inside = ({ dayStart }: StoredDay): boolean => dayStart >= days.start && dayStart < days.end;
    return new Map(metricIds.map((id, i) => [id, read[i].every(inside) ? read[i] : read[i].filter(inside)]));
  }

  /** Usable samples of the UTC days that touch `from` ≤ t < `to`, with the one before and the one after, by metric. */
  async around(
    db: Reader,
    metricIds: readonly string[],
    from: number,
    to: number,
  ): Promise<Map<string, Series>> {
    const days = { start: dayOf(from), end: dayOf(Math.max(from, to - 1)) + DAY_MS };
    const read = await Promise.all(metricIds.map((metricId) => this.sampled.load({ db, metricId, days })));
    return new Map(metricIds.map((id, i) => [id, read[i]]));
  }
}

/** Metrics that are read over the same days, in one statement. */
interface Group<Grain> {
  readonly db: Reader;
  readonly days: Interval;
  readonly grain: Grain;
  readonly ids: Set<string>;
}

/** Reads each group of asks for itself, so that one that fails takes no other with it. */
async function inGroups<Grain, Read>(
  asks: readonly (Ask & { readonly grain: Grain })[],
  read: (group: Group<Grain>) => Promise<ReadonlyMap<string, Read>>,
): Promise<(Read | Error)[]> {
  const groups = new Map<string, Group<Grain>>();
  const keyOf = ({ days, grain }: { days: Interval; grain: Grain }): string =>
    `${String(grain)} ${days.start} ${days.end}`;
  for (const { db, days, grain, metricId } of asks) {
    const key = keyOf({ days, grain });
    const group = groups.get(key) ?? { db, days, grain, ids: new Set() };
    group.ids.add(metricId);
    groups.set(key, group);
  }
  const answers = new Map<string, ReadonlyMap<string, Read> | Error>();
  await Promise.all(
    [...groups].map(async ([key, group]) => {
      answers.set(key, await read(group).catch((error: Error) => error));
    }),
  );
  return asks.map((ask) => {
    const answer = answers.get(keyOf(ask))!;
    return answer instanceof Error ? answer : answer.get(ask.metricId)!;
  });
}

/** Of several asks about one metric, those over touching days as one about all of them. */
function joinDays(asks: readonly RollupAsk[]): RollupAsk[] {
  const byMetric = new Map<string, Interval[]>();
  const keyOf = ({ metricId, grain }: RollupAsk): string => `${grain} ${metricId}`;
  for (const ask of asks) {
    const known = byMetric.get(keyOf(ask));
    if (known) known.push(ask.days);
    else byMetric.set(keyOf(ask), [ask.days]);
  }
  for (const [key, days] of byMetric) if (days.length > 1) byMetric.set(key, unionOf(days));
  return asks.map((ask) => ({
    ...ask,
    days: byMetric.get(keyOf(ask))!.find(({ start, end }) => start <= ask.days.start && ask.days.end <= end)!,
  }));
}
