import { shortfallOf } from '../bands/shortfall';
import { isAbove } from '../stats/decimal';
import type { BaseReadout } from '../board/choices';
import { addsUpOverAssets } from '../domain/measure';
import { WHOLE_SCOPE, type QueryAnswer } from '../domain/query';
import { ranksOf } from '../stats/ranks';
import { compareNames } from '../text/compareNames';
import {
  groupsData,
  groupsRequests,
  valueOfAll,
  type GroupRow,
  type GroupsData,
  type MeasureColumn,
} from './groupsData';
import type { WithMoreBands } from './moreBands';
import {
  isProblem,
  type Problem,
  type ReadingAnswers,
  type ReadingRequest,
  type ReadoutInputs,
} from './readoutData';
import type { ReadoutValue } from './readoutValues';

/** What comes first in a ranking. */
export const RANKING_ORDERS = ['largest', 'smallest', 'worst', 'name'] as const;
export type RankingOrder = (typeof RANKING_ORDERS)[number];

/** The choices of a ranking besides those of every readout. */
export interface RankingChoices extends WithMoreBands {
  readonly order: RankingOrder;
  /** Index of the measure it is sorted by; beyond the last = the first. */
  readonly by: number;
  /** Most rows; null = all. */
  readonly rows: number | null;
  /** Smallest value that has a row of its own, as shown; null = any. */
  readonly leastValue: number | null;
  /** Smallest share of the total that has a row of its own, percent; null = any. */
  readonly leastShare: number | null;
  readonly shares: 'none' | 'share' | 'running';
  /** Whether the rank in the reference window is compared. */
  readonly moves: boolean;
}

/** A row with its place among all groups, cut off or not. */
export interface RankedRow extends GroupRow {
  /** By the sorted measure, 1 first; null without a value. */
  readonly rank: number | null;
  /** Its rank in the reference window; null if unknown. */
  readonly was: number | null;
  /** Share of the total, 0 to 1; null where there is no total. */
  readonly share: number | null;
  /** Its share and those of all before it. */
  readonly running: number | null;
}

/** The rows that were cut off, together. */
export interface OtherRows {
  readonly count: number;
  /** How many of them have no value. */
  readonly unknown: number;
  readonly share: number | null;
  /** Their values together, by column; null until it is there, or where they cannot be put together. */
  readonly values: readonly (ReadoutValue | null)[];
}

export interface RankingData extends GroupsData<RankingChoices> {
  /** Index of the column it is sorted by. */
  readonly by: number;
  readonly rows: readonly RankedRow[];
  readonly others: OtherRows | null;
  /** Number of groups. */
  readonly count: number;
  /** The sorted column in all groups, each metric counted once; null where it was not asked for or does not add up. */
  readonly total: number | null;
  /** Whether the groups together exceed the total, because some lie within others. */
  readonly overlaps: boolean;
}

/** The groups, and what they are all together where shares of it are shown or cut at. */
export function rankingRequests(inputs: ReadoutInputs<RankingChoices>): readonly ReadingRequest[] | null {
  const asks = groupsRequests(inputs);
  const [first] = asks ?? [];
  if (first?.kind !== 'query' || !asksTotal(inputs.readout)) return asks;
  const measures = [first.ask.measures[sortedBy(inputs.readout)]];
  const ask = { ...first.ask, measures, groupBy: { kind: 'all' as const }, compare: 'none' as const };
  return [first, { kind: 'query', ask, isExtra: true }];
}

const sortedBy = ({ by, measures, groupBy }: BaseReadout & RankingChoices): number =>
  groupBy !== null && by < measures.length ? by : 0;

/** Metrics chosen one by one are summed here, because each is its own group. */
const asksTotal = (readout: BaseReadout & RankingChoices): boolean =>
  readout.groupBy !== null &&
  (readout.shares !== 'none' || readout.leastShare !== null) &&
  addsUpOverAssets(readout.measures[sortedBy(readout)]);

export function rankingData(
  inputs: ReadoutInputs<RankingChoices>,
  answers: ReadingAnswers,
): RankingData | Problem {
  const data = groupsData(inputs, answers);
  if (isProblem(data)) return data;
  const { shown, cut, total, overlaps, by } = ranked(data, answers);
  const together = answers.slice(asksTotal(inputs.readout) ? 2 : 1) as (QueryAnswer | undefined)[];
  const shares = cut.map(({ share }) => share);
  return {
    ...data,
    by,
    rows: shown,
    count: data.groups.length,
    total,
    overlaps,
    others:
      cut.length === 0
        ? null
        : {
            count: cut.length,
            unknown: cut.filter(({ rank }) => rank === null).length,
            share: total === null ? null : shares.reduce<number>((sum, share) => sum + (share ?? 0), 0),
            values: data.columns.map((_, i) => {
              const answer = together[i];
              return answer ? valueOfAll(answer, data, i, OTHERS) : null;
            }),
          },
  };
}

/** Groups as a plain ranking: the same numbers as a list beside another drawing. */
export function rankingOf(
  data: GroupsData<WithMoreBands>,
  sorted: Partial<Pick<RankingChoices, 'by' | 'order'>>,
): RankingData {
  const readout: BaseReadout & RankingChoices = { ...data.readout, ...DEFAULT_RANKING, ...sorted };
  const plain = { ...data, readout };
  const { shown, by } = ranked(plain, []);
  return { ...plain, by, rows: shown, others: null, count: data.groups.length, total: null, overlaps: false };
}

/** A ranking by the first measure, with every row. */
export const DEFAULT_RANKING = {
  order: 'largest',
  by: 0,
  rows: null,
  leastValue: null,
  leastShare: null,
  shares: 'none',
  moves: false,
} as const;

/** What the row of all that was cut off is called. */
const OTHERS = 'others';

/** The values of all that was cut off, put together as values of their kind are: sums, weighted means, ratios of sums. */
export function rankingFurther(
  inputs: ReadoutInputs<RankingChoices>,
  answers: ReadingAnswers,
): readonly ReadingRequest[] {
  const data = groupsData(inputs, answers);
  if (isProblem(data)) return [];
  const { cut } = ranked(data, answers);
  if (cut.length === 0 || inputs.readout.groupBy === null) return [];
  const [first] = groupsRequests(inputs) ?? [];
  if (first?.kind !== 'query') return [];
  const { ask } = first;
  return ask.measures.map((measure, i): ReadingRequest => {
    const values = cut.map((row) => row.values[i]);
    const ids = (of: (value: ReadoutValue) => readonly string[]): string[] => [
      ...new Set(values.flatMap(of)),
    ];
    const meant = {
      ...measure,
      select: { metricIds: ids(({ metricIds }) => metricIds) },
      per: measure.per && { ...measure.per, select: { metricIds: ids(({ perMetricIds }) => perMetricIds) } },
    };
    // One request a measure: what cannot be put together is refused without the others.
    return {
      kind: 'query',
      ask: { ...ask, measures: [meant], groupBy: { kind: 'all' }, scope: WHOLE_SCOPE },
      isExtra: true,
    };
  });
}

interface Ranked {
  readonly shown: readonly RankedRow[];
  readonly cut: readonly RankedRow[];
  readonly total: number | null;
  readonly overlaps: boolean;
  readonly by: number;
}

/** All groups in their order, divided into those shown and those cut off. */
function ranked(data: GroupsData<RankingChoices>, answers: ReadingAnswers): Ranked {
  const { groups, columns, readout } = data;
  const by = sortedBy(readout);
  const column = columns[by];
  const valueOf = ({ values }: GroupRow): number | null => values[by].value;
  const sum = sumOf(groups.map(valueOf), column);
  const total = sum === null ? null : totalOf(answers, data, sum);
  const ranks = ranksBy(groups.map(valueOf), column, readout.order);
  const before = readout.moves
    ? ranksBy(
        groups.map(({ values }) => values[by].previous),
        column,
        readout.order,
      )
    : null;
  const rows = groups.map((row, i): RankedRow => {
    const value = valueOf(row);
    return {
      ...row,
      rank: ranks[i],
      was: before?.[i] ?? null,
      share: total === null || value === null ? null : value / total,
      running: null,
    };
  });
  const sorted = rows.sort(
    (a, b) =>
      Number(a.rank === null) - Number(b.rank === null) ||
      (readout.order === 'name' ? 0 : (a.rank ?? 0) - (b.rank ?? 0)) ||
      compareNames(a.name, b.name),
  );
  let running = 0;
  const placed = sorted.map((row) => {
    running += row.share ?? 0;
    return row.share === null ? row : { ...row, running };
  });
  const isKept = keeps(readout);
  const kept = placed.filter((row) => isKept(row, valueOf(row)));
  const shown = new Set(kept.slice(0, readout.rows ?? kept.length));
  const cut = placed.filter((row) => !shown.has(row));
  return {
    shown: [...shown],
    cut,
    total,
    overlaps: sum !== null && total !== null && isAbove(sum, total),
    by,
  };
}

/** Ranks by value, or by how far a value lies on the worse side of its target. Names are ranked by the largest value. */
function ranksBy(
  values: readonly (number | null)[],
  { band }: MeasureColumn,
  order: RankingOrder,
): (number | null)[] {
  if (order === 'worst' && band) {
    return ranksOf(
      values.map((value) => (value === null ? null : shortfallOf(band, value))),
      'largest',
    );
  }
  return ranksOf(values, order === 'smallest' ? 'smallest' : 'largest');
}

/** The sum of values; null unless they add up and none is negative, because there is no whole then. */
function sumOf(values: readonly (number | null)[], { addsUp }: MeasureColumn): number | null {
  const known = values.filter((value) => value !== null);
  if (!addsUp || known.some((value) => value < 0)) return null;
  const sum = known.reduce((all, value) => all + value, 0);
  return sum > 0 ? sum : null;
}

/** The whole that shares are of, as shown; of metrics chosen one by one their sum. */
function totalOf(answers: ReadingAnswers, data: GroupsData<RankingChoices>, sum: number): number | null {
  const { readout } = data;
  if (readout.groupBy === null) return sum;
  if (!asksTotal(readout)) return null;
  const answer = answers[1] as QueryAnswer | undefined;
  const value = answer ? valueOfAll(answer, data, sortedBy(readout), 'All').value : null;
  return value !== null && value > 0 ? value : null;
}

/** Whether a row has a line of its own: without a value it is not below any limit. */
function keeps({ leastValue, leastShare }: BaseReadout & RankingChoices) {
  return ({ share }: RankedRow, value: number | null): boolean =>
    (leastValue === null || value === null || value >= leastValue) &&
    (leastShare === null || share === null || share * 100 >= leastShare);
}
