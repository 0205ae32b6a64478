import { searchWords, type FeedState, type Metric, type PageOf } from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
import { toMetric } from './metrics';
import { countFeeds, countFeedsAmong, countMetrics, pageOfMetrics, type MetricFilter } from './searchSql';
import type { MetricRow } from './sql';

/** The query parameters. */
interface MetricListAsk extends Pick<MetricFilter, 'assetId' | 'under' | 'name' | 'unit'> {
  readonly ids?: string;
  readonly search?: string;
  readonly kind?: Metric['kind'];
  readonly origin?: Metric['origin'];
  readonly state?: FeedState;
  readonly offset: number;
  readonly limit: number;
}

/** Those that need a look first. */
const IN_ORDER: readonly FeedState[] = ['silent', 'outOfRange', 'flat', 'clockAhead', 'never', 'reporting'];

/** A page of feeds, those that need a look first. */
async function listFeeds(
  db: Reader,
  { search, state, offset, limit }: Pick<MetricListAsk, 'search' | 'state' | 'offset' | 'limit'>,
  now: number,
): Promise<PageOf<Metric>> {
  const words = searchWords(search);
  const counts = words.length === 0 ? await countFeeds(db, now) : await countFeedsAmong(db, { words }, now);
  const items: MetricRow[] = [];
  let total = 0;
  for (const each of state ? [state] : IN_ORDER) {
    const here = counts[each] ?? 0;
    const from = Math.max(0, offset - total);
    total += here;
    if (from >= here || items.length >= limit) continue;
    const page = { offset: from, limit: limit - items.length };
    items.push(...(await pageOfMetrics(db, { words, state: each }, page, now)));
  }
  return { items: items.map((row) => toMetric(row, now)), total };
}

/** A page of metrics. */
export async function listMetricPage(
  db: Reader,
  { feeds, ...ask }: MetricListAsk & { readonly feeds: boolean },
  now: number,
): Promise<PageOf<Metric>> {
  if (feeds) return listFeeds(db, ask, now);
  const { ids, search, kind, origin, offset, limit, ...rest } = ask;
  const filter: MetricFilter = {
    ...rest,
    ids: ids?.split(','),
    words: searchWords(search),
    kinds: kind && [kind],
    origin,
  };
  const rows = await pageOfMetrics(db, filter, { offset, limit }, now);
  const total = rows.length < limit && offset === 0 ? rows.length : await countMetrics(db, filter, now);
  return { items: rows.map((row) => toMetric(row, now)), total };
}
