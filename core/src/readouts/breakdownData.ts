import type { BaseReadout } from '../board/choices';
import { stackedColumns } from '../stats/stacked';
import { isCovered } from '../bands/targetBand';
import { addsUpOverAssets } from '../domain/measure';
import type { GroupBy, Query, QueryAnswer, Scope } from '../domain/query';
import { decimalsFor } from '../format/format';
import { displayDivisor } from '../format/displayScale';
import { isAbove } from '../stats/decimal';
import { periodOfColumns } from '../time/automaticPeriod';
import type { Bucket } from '../time/buckets';
import type { Interval } from '../time/interval';
import { lengthOfWindow } from '../time/windowLength';
import { readoutQuery, readoutValues, type ReadoutValue } from './readoutValues';
import { scaledForDisplay } from './scaledForDisplay';
import type { Problem, ReadData, ReadingAnswers, ReadingRequest, ReadoutInputs } from './readoutData';
import { NOTHING_IN_SCOPE } from './valuesData';

export const BREAKDOWN_MARKS = ['strip', 'ring', 'bars', 'overTime', 'sharesOverTime'] as const;

/** The choices of a breakdown besides those of every readout. */
export interface BreakdownChoices {
  readonly parts: (typeof BREAKDOWN_MARKS)[number];
  /** Period of columns over time; null = chosen by the length of the window. */
  readonly bucket: Bucket | null;
  /** Keys of the parts that are left out of the total. */
  readonly without: readonly string[];
}

/** One part of a total. */
export interface BreakdownPart {
  readonly key: string;
  readonly name: string;
  /** What kind of part: a group, the small ones together, or what no part has measured. */
  readonly kind: 'group' | 'others' | 'rest';
  /** The value of a group; null of others and of the rest. */
  readonly of: ReadoutValue | null;
  readonly value: number | null;
  /** In the window before; null if unknown. */
  readonly previous: number | null;
  /** Whether it counts in the total. */
  readonly picked: boolean;
  /** Share of the total; null if it is left out, missing or below zero. */
  readonly share: number | null;
  /** Its values by period, and those of the reference window; empty unless drawn over time. */
  readonly course: readonly (number | null)[];
  readonly courseBefore: readonly (number | null)[];
}

/** Columns over time. */
export interface BreakdownPeriods {
  readonly start: readonly number[];
  readonly end: readonly number[];
  /** Whether each has enough data in all parts. */
  readonly covered: readonly boolean[];
}

export interface BreakdownData extends ReadData {
  /** Largest first, then others, then the rest. */
  readonly parts: readonly BreakdownPart[];
  /** The sum of the parts that are picked. */
  readonly total: number;
  /** What is measured of all together; null if unknown. */
  readonly measured: ReadoutValue | null;
  /** By how much the parts exceed what is measured of all together; 0 = they do not. */
  readonly excess: number;
  /** How many groups have no value, and how many are below zero. */
  readonly missing: number;
  readonly negative: number;
  readonly unit: string;
  readonly periods: BreakdownPeriods | null;
  readonly readout: BaseReadout & BreakdownChoices;
  /** Of copies side by side: heights of all of them, which the scale of each fits too. */
  readonly beside?: readonly number[];
}

/** Copies whose columns all have one scale. */
export function breakdownsAlike(all: readonly BreakdownData[]): readonly BreakdownData[] {
  const beside = all.flatMap(heightsOf);
  return all.map((data) => ({ ...data, beside }));
}

/** What the picked parts came to in each period of the reference window; null where one of them is not known. */
export function totalsBefore({ parts }: Pick<BreakdownData, 'parts'>): (number | null)[] {
  const courses = parts.flatMap(({ picked, courseBefore }) => (picked ? [courseBefore] : []));
  return Array.from({ length: Math.max(0, ...courses.map(({ length }) => length)) }, (_, i) => {
    const values = courses.map((course) => course[i] ?? null);
    return values.includes(null) ? null : values.reduce<number>((sum, value) => sum + Math.max(0, value!), 0);
  });
}

/** Heights that the columns of a breakdown reach. */
export function heightsOf({ parts, periods }: BreakdownData): number[] {
  const picked = parts.filter((part) => part.picked);
  if (!periods)
    return picked.flatMap(({ value, previous }) => (value === null ? [] : [value, previous ?? 0]));
  const courses = picked.map(({ course }) => course);
  const tops = stackedColumns(courses, periods.start.length, false).map((column) => column.at(-1)?.to ?? 0);
  return [...tops, ...totalsBefore({ parts }).filter((total) => total !== null)];
}

const isOverTimeMark = ({ parts }: BreakdownChoices): boolean =>
  parts === 'overTime' || parts === 'sharesOverTime';

/** The parts and everything together, over the whole window and, drawn over time, by period. */
export function breakdownRequests({
  metrics,
  ...shown
}: ReadoutInputs<BreakdownChoices>): readonly ReadingRequest[] | null {
  const { readout, window } = shown;
  if (readout.measures.length === 0 || readout.groupBy === null) return [];
  const whole = readoutQuery(shown, metrics);
  if (!whole) return null;
  const zone = metrics.get(readout.measures[0].metricId)?.zone ?? 'UTC';
  const bucket = readout.bucket ?? periodOfColumns(lengthOfWindow(window, zone));
  const asks = [whole, ofAll(whole)];
  if (isOverTimeMark(readout)) {
    const byPeriod: Query = { ...whole, bucket };
    asks.push(byPeriod, ofAll(byPeriod));
  }
  // What is measured of all may be unknown; the parts are shown without it.
  return asks.map((ask, i) => ({ kind: 'query', ask, isExtra: i % 2 === 1 }));
}

/** Everything together: of the parts of an asset what is measured at the asset itself. */
function ofAll(ask: Query): Query {
  return { ...ask, groupBy: { kind: 'all' }, scope: wholeOf(ask.groupBy, ask.scope) };
}

function wholeOf(by: GroupBy, scope: Scope): Scope {
  if (by.kind !== 'part' || by.assetId === null) return scope;
  const within = scope.assetIds === null || scope.assetIds.includes(by.assetId);
  return within ? { ...scope, assetIds: [by.assetId] } : scope;
}

/** Most parts with a tone of their own, and the smallest share of one. */
const MOST_PARTS = 8;
const LEAST_SHARE = 0.02;

export function breakdownData(
  { readout, metrics }: ReadoutInputs<BreakdownChoices>,
  answers: ReadingAnswers,
): BreakdownData | Problem {
  if (readout.groupBy === null) return NOT_GROUPED;
  if (!addsUpOverAssets(readout.measures[0])) return NO_WHOLE;
  const [whole, all, byPeriod, allByPeriod] = answers as readonly (QueryAnswer | undefined)[];
  if (!whole) return NOTHING_IN_SCOPE;
  const { values } = scaledForDisplay(readout, readoutValues(whole, readout, metrics));
  if (values.length === 0) return NOTHING_IN_SCOPE;
  const by = displayDivisor(readout.display);
  const courses = byPeriod ? coursesOf(byPeriod, readout, by) : NO_COURSES;
  const measured = all ? measuredOf(all, readout, metrics) : null;
  const { kept, small } = largest(values);
  const groups = kept.map((of) => groupPart(of, courses.get(of.key) ?? NO_COURSE));
  const others = small.length === 0 ? [] : [othersPart(small, courses)];
  const sum = values.reduce((total, { value }) => total + Math.max(0, value ?? 0), 0);
  const gap = measured?.value == null ? 0 : measured.value - sum;
  const rest =
    measured?.value != null && isAbove(measured.value, sum)
      ? [restPart(readout.groupBy, gap, measured, values, allByPeriod, courses, by)]
      : [];
  const unpicked = new Set(readout.without);
  const known = [...groups, ...others, ...rest].map((part) => ({ ...part, picked: !unpicked.has(part.key) }));
  const total = known.reduce((all, { value, picked }) => all + (picked ? Math.max(0, value ?? 0) : 0), 0);
  const { window, zone, now } = whole;
  return {
    parts: known.map((part) => ({
      ...part,
      share: part.picked && part.value !== null && part.value >= 0 && total > 0 ? part.value / total : null,
    })),
    total,
    measured,
    excess: measured?.value != null && isAbove(sum, measured.value) ? -gap : 0,
    missing: values.filter(({ value }) => value === null).length,
    negative: values.filter(({ value }) => value !== null && value < 0).length,
    unit: values[0].unit,
    periods: byPeriod ? periodsOf(byPeriod) : null,
    decimals: readout.decimals ?? decimalsFor(0, Math.max(...values.map(({ value }) => value ?? 0))),
    readout,
    window,
    zone,
    now,
  };
}

const NOT_GROUPED: Problem = {
  problem: {
    title: 'Nothing to divide',
    text: 'Group it by part, asset, plant or attribute: each is a part of the total.',
  },
};
const NO_WHOLE: Problem = {
  problem: {
    title: 'No whole to have parts of',
    text: 'Parts need amounts that add up, such as a sum or an increase. Means and ratios do not.',
  },
};

const measuredOf = (
  all: QueryAnswer,
  readout: BaseReadout & BreakdownChoices,
  metrics: ReadoutInputs['metrics'],
): ReadoutValue | null =>
  scaledForDisplay(readout, readoutValues({ ...all, groups: all.groups.slice(0, 1) }, readout, metrics))
    .values[0] ?? null;

/** The large parts in order of size, and the small ones; a single small one keeps its name. */
function largest(values: readonly ReadoutValue[]): {
  readonly kept: readonly ReadoutValue[];
  readonly small: readonly ReadoutValue[];
} {
  const sorted = [...values].sort((a, b) => (b.value ?? -Infinity) - (a.value ?? -Infinity));
  const sum = sorted.reduce((total, { value }) => total + Math.max(0, value ?? 0), 0);
  const isLarge = ({ value }: ReadoutValue, i: number): boolean =>
    i < MOST_PARTS && value !== null && value > 0 && value / sum >= LEAST_SHARE;
  const small = sorted.filter((value, i) => !isLarge(value, i));
  return small.length === 1 ? { kept: sorted, small: [] } : { kept: sorted.filter(isLarge), small };
}

type Unpicked = Omit<BreakdownPart, 'picked' | 'share'>;

/** Values by period, and those of the reference window. */
type Courses = Pick<BreakdownPart, 'course' | 'courseBefore'>;
const NO_COURSE: Courses = { course: [], courseBefore: [] };
const NO_COURSES: ReadonlyMap<string, Courses> = new Map();

const groupPart = (of: ReadoutValue, courses: Courses): Unpicked => ({
  key: of.key,
  name: of.name,
  kind: 'group',
  of,
  value: of.value,
  previous: of.previous,
  ...courses,
});

/** Keys of the parts that are no groups; no group is called so. */
export const OTHERS_KEY = ' others';
export const REST_KEY = ' rest';

/** The sum of what is known; null if nothing is. */
function sumOf(values: readonly (number | null)[]): number | null {
  const known = values.filter((value) => value !== null);
  return known.length === 0 ? null : known.reduce((a, b) => a + b, 0);
}

/** Sums of columns that have the same periods. */
const sumOfCourses = (courses: readonly (readonly (number | null)[])[]): (number | null)[] =>
  Array.from({ length: Math.max(0, ...courses.map(({ length }) => length)) }, (_, i) =>
    sumOf(courses.map((course) => course[i] ?? null)),
  );

const othersPart = (small: readonly ReadoutValue[], courses: ReadonlyMap<string, Courses>): Unpicked => ({
  key: OTHERS_KEY,
  name: `${small.length} others`,
  kind: 'others',
  of: null,
  // What is below zero is not in the total.
  value: sumOf(small.map(({ value }) => (value !== null && value < 0 ? null : value))),
  previous: sumOf(small.map(({ previous }) => previous)),
  course: sumOfCourses(small.map(({ key }) => (courses.get(key) ?? NO_COURSE).course)),
  courseBefore: sumOfCourses(small.map(({ key }) => (courses.get(key) ?? NO_COURSE).courseBefore)),
});

/** What all together is more than its parts. */
function restPart(
  by: GroupBy,
  gap: number,
  measured: ReadoutValue,
  values: readonly ReadoutValue[],
  allByPeriod: QueryAnswer | undefined,
  courses: ReadonlyMap<string, Courses>,
  divisor: number,
): Unpicked {
  const before = sumOf(values.map(({ previous }) => previous));
  const whole = allByPeriod?.groups[0].measures[0];
  const restOf = (all: readonly (number | null)[], parts: readonly (number | null)[]): (number | null)[] =>
    all.map((value, i) => (value === null ? null : Math.max(0, value / divisor - (parts[i] ?? 0))));
  const all = [...courses.values()];
  return {
    key: REST_KEY,
    name: by.kind === 'attribute' ? `without ${by.name}` : 'not measured by a part',
    kind: 'rest',
    of: null,
    value: gap,
    previous: measured.previous === null || before === null ? null : Math.max(0, measured.previous - before),
    course: restOf(whole?.values ?? [], sumOfCourses(all.map(({ course }) => course))),
    courseBefore: restOf(whole?.before ?? [], sumOfCourses(all.map(({ courseBefore }) => courseBefore))),
  };
}

/** The values of each group by period, by its name in the answer. */
function coursesOf({ groups }: QueryAnswer, readout: BaseReadout, divisor: number): Map<string, Courses> {
  const shown = (values: readonly (number | null)[]): (number | null)[] =>
    values.map((value) => (value === null ? null : value / divisor));
  return new Map(
    groups
      .filter(({ name }) => name !== '' || readout.keepBlanks)
      .map(({ name, measures }) => [
        name,
        { course: shown(measures[0].values), courseBefore: shown(measures[0].before ?? []) },
      ]),
  );
}

function periodsOf({ start, end, groups, now }: QueryAnswer): BreakdownPeriods {
  const covered = start.map((at, i) =>
    at >= now ? true : groups.every(({ measures }) => isCovered({ coverage: measures[0].coverage[i] })),
  );
  return { start, end, covered };
}

/** The stretch that the columns cover: whole periods. */
export const reachOf = ({ start, end }: BreakdownPeriods): Interval => ({
  start: Math.min(...start),
  end: Math.max(...end),
});
