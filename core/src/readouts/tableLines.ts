import type { BaseReadout } from '../board/choices';
import { nameOfPeriod } from '../format/nameOfPeriod';
import type { GroupBy, Query, QueryAnswer } from '../domain/query';
import { nameKey } from '../text/sameName';
import { periodOfColumns } from '../time/automaticPeriod';
import type { Bucket } from '../time/buckets';
import type { Interval } from '../time/interval';
import { localStretch } from '../time/localWindow';
import { lengthOfWindow } from '../time/windowLength';
import type { WindowSpec } from '../time/windowSpec';
import { groupsData, groupsRequests, valueOfAll, type GroupRow, type GroupsData } from './groupsData';
import { isProblem, type ReadingAnswers, type ReadingRequest, type ReadoutInputs } from './readoutData';
import type { ReadoutValue } from './readoutValues';
import type { TableChoices } from './tableChoices';

/* What a table asks: the same groups and totals over its window, over the last days, and by period. */

type Inputs = ReadoutInputs<TableChoices>;
type Values = readonly (ReadoutValue | null)[];

/** One row as it was read: a group at its depth, or a period of one. */
export interface Line {
  readonly row: GroupRow;
  readonly depth: number;
  /** Keys of the groups around it, outermost first. */
  readonly path: readonly string[];
  /** Its stretch of time, if it is a period. */
  readonly time: Interval | null;
}

/** All lines of one stretch of time. */
export interface Layer {
  readonly lines: readonly Line[];
  /** Each measure of everything together; null where it is not known. */
  readonly total: Values;
}

/** The values of another stretch of time beside those of the window. */
export interface OtherStretch {
  readonly name: string;
  readonly time: Interval | null;
  /** Of a line; undefined while it is not there. */
  readonly of: (line: Line) => Values | undefined;
  readonly total: Values;
}

/** The groupings of a table, outermost first. */
const levelsOf = ({ groupBy, steps }: BaseReadout): readonly GroupBy[] =>
  groupBy ? [groupBy, ...steps] : [];

/** How many depths of rows are asked for. */
export const depthsOf = (readout: BaseReadout): number => Math.max(1, levelsOf(readout).length);

const shows = ({ beside }: TableChoices, what: TableChoices['beside'][number]['show']): boolean =>
  beside.some(({ show }) => show === what);

const showsRecent = (readout: TableChoices): boolean =>
  shows(readout, 'recent') || shows(readout, 'recentDaily');

const asksByPeriod = (readout: TableChoices): boolean =>
  readout.periods !== 'none' || shows(readout, 'trend');

/** Answers to the requests of one stretch of time: one a depth and one a measure of the total. */
const answersEach = (readout: BaseReadout): number =>
  depthsOf(readout) + (readout.groupBy ? readout.measures.length : 0);

/** Answers to the first round of requests. */
export const firstRound = (readout: BaseReadout & TableChoices): number =>
  answersEach(readout) * (1 + Number(showsRecent(readout)) + Number(asksByPeriod(readout)));

/** The answers by period, one a depth and one a measure of the total; [] unless asked for. */
export function periodAnswers(
  readout: BaseReadout & TableChoices,
  answers: ReadingAnswers,
): readonly (QueryAnswer | undefined)[] {
  if (!asksByPeriod(readout)) return [];
  const each = answersEach(readout);
  const from = each * (1 + Number(showsRecent(readout)));
  return answers.slice(from, from + each) as readonly (QueryAnswer | undefined)[];
}

/**
 * A query for each depth, so that every subtotal is that of its kind of measure, and one a measure for the total; the same
 * for the last days and by period where they are shown.
 */
export function tableRequests(inputs: Inputs): readonly ReadingRequest[] | null {
  const asks = groupsRequests(inputs);
  const [first] = asks ?? [];
  if (first?.kind !== 'query') return asks;
  const { readout } = inputs;
  const levels = levelsOf(readout);
  const deep = levels.map((groupBy, i): Query => ({ ...first.ask, groupBy, within: levels.slice(0, i) }));
  const whole = (readout.groupBy ? first.ask.measures : []).map((measure): Query => ({
    ...first.ask,
    measures: [measure],
    groupBy: { kind: 'all' },
  }));
  const rows = levels.length > 0 ? deep : [first.ask];
  const request = (ask: Query, isExtra: boolean): ReadingRequest =>
    isExtra ? { kind: 'query', ask, isExtra } : { kind: 'query', ask };
  const layer = (change: Partial<Query>, isExtra: boolean): ReadingRequest[] => [
    ...rows.map((ask) => request({ ...ask, ...change }, isExtra)),
    ...whole.map((ask) => request({ ...ask, ...change }, true)),
  ];
  const isByRow = readout.periods !== 'none' && readout.periodsAs === 'rows';
  return [
    ...layer({}, false),
    ...(showsRecent(readout) ? layer({ window: lastDays(readout), compare: 'none' }, true) : []),
    ...(asksByPeriod(readout) ? layer({ bucket: bucketOf(inputs), compare: 'none' }, !isByRow) : []),
  ];
}

/** The stretch of the recent values. */
const lastDays = ({ recentDays }: TableChoices): WindowSpec => ({
  kind: 'rolling',
  count: recentDays,
  unit: 'day',
});

/** The chosen period, or one for small trends. */
function bucketOf({ readout, metrics, window }: Inputs): Bucket {
  if (readout.periods !== 'none') return readout.periods;
  const zone = metrics.get(readout.measures[0].metricId)?.zone ?? 'UTC';
  return periodOfColumns(lengthOfWindow(window, zone));
}

/** What was read, by stretch of time. */
export interface TableLayers {
  readonly data: GroupsData<TableChoices>;
  readonly window: Layer;
  readonly recent: OtherStretch | null;
  /** In order of time; [] unless asked for, or while they are not there. */
  readonly periods: readonly OtherStretch[];
}

/** @param data of the outermost groups. */
export function layersOf(
  inputs: Inputs,
  data: GroupsData<TableChoices>,
  answers: ReadingAnswers,
): TableLayers {
  const { readout } = inputs;
  const each = answersEach(readout);
  const part = (i: number): ReadingAnswers => answers.slice(i * each, (i + 1) * each);
  const hasRecent = showsRecent(readout);
  return {
    data,
    window: layerOf(inputs, data, part(0), null, data),
    recent: hasRecent
      ? besideOf(inputs, data, part(1), { name: '', time: null, over: lastDays(readout) })
      : null,
    periods: periodsOf(inputs, data, periodAnswers(readout, answers)),
  };
}

/** The lines of every depth, and each measure of everything together. @param known of the outermost, if they are there. */
function layerOf(
  inputs: Inputs,
  data: GroupsData<TableChoices>,
  answers: ReadingAnswers,
  over: WindowSpec | null,
  known?: GroupsData<TableChoices>,
): Layer {
  const { readout } = inputs;
  const levels = levelsOf(readout);
  const stretched = <V extends ReadoutValue | null>(value: V): V =>
    value && over ? { ...value, over } : value;
  const lines: Line[] = [];
  [readout.groupBy, ...levels.slice(1)].forEach((groupBy, depth) => {
    const answer = answers[depth] as QueryAnswer | undefined;
    if (!answer) return;
    const found =
      (depth === 0 && known) || groupsData({ ...inputs, readout: { ...readout, groupBy } }, [answer]);
    if (isProblem(found)) return;
    const shown = answer.groups.filter(({ name }) => name !== '' || readout.keepBlanks);
    found.groups.forEach((row, k) =>
      lines.push({
        row: over ? { ...row, values: row.values.map(stretched) } : row,
        depth,
        path: (depth > 0 && shown[k].path) || [],
        time: null,
      }),
    );
  });
  const total = readout.measures.map((_, i) => {
    const answer = readout.groupBy ? (answers[levels.length + i] as QueryAnswer | undefined) : undefined;
    return answer ? stretched(valueOfAll(answer, data, i, 'All')) : null;
  });
  return { lines, total };
}

function besideOf(
  inputs: Inputs,
  data: GroupsData<TableChoices>,
  answers: ReadingAnswers,
  { name, time, over }: Pick<OtherStretch, 'name' | 'time'> & { readonly over: WindowSpec | null },
): OtherStretch {
  const { lines, total } = layerOf(inputs, data, answers, over);
  const known = new Map(lines.map((line) => [placeOf(line), line.row.values]));
  return { name, time, of: (line) => known.get(placeOf(line)), total };
}

function periodsOf(
  inputs: Inputs,
  data: GroupsData<TableChoices>,
  answers: readonly (QueryAnswer | undefined)[],
): readonly OtherStretch[] {
  const [first] = answers;
  if (!first) return [];
  const bucket = bucketOf(inputs);
  return first.start.flatMap((start, i): OtherStretch[] => {
    const time = { start, end: first.end[i] };
    // Periods that lie ahead have no values.
    if (start >= first.now) return [];
    const name = first.names
      ? `${first.names[i]}, ${nameOfPeriod(time, 'day', first.zone, first.now)}`
      : nameOfPeriod(time, bucket, first.zone, first.now);
    const only = answers.map((answer) => answer && inPeriod(answer, i));
    return [besideOf(inputs, data, only, { name, time, over: localStretch(time, first.zone) })];
  });
}

/** An answer by period as that of one period. */
const inPeriod = (answer: QueryAnswer, i: number): QueryAnswer => ({
  ...answer,
  groups: answer.groups.map((group) => ({
    ...group,
    measures: group.measures.map((measure) => ({
      ...measure,
      values: [measure.values[i] ?? null],
      coverage: [measure.coverage[i] ?? 0],
      samples: [measure.samples[i] ?? 0],
      partial: answer.end[i] > answer.now,
    })),
  })),
});

const BETWEEN = '\u0000';

/** Keys of the groups around a line and its own as one text; names that differ only in capitals are one. */
export const aroundOf = (path: readonly string[]): string =>
  [String(path.length), ...path.map(nameKey)].join(BETWEEN);

const placeOf = ({ row, path }: Line): string => aroundOf([...path, row.key]);

/** The key of a row among all. */
export const keyOfLine = ({ row, path }: Line): string => [...path, row.key].join(BETWEEN);

/** The innermost lines with a line for each period inside, in order of time. */
export function withPeriods({ window, periods, data }: TableLayers): readonly Line[] {
  const deepest = levelsOf(data.readout).length - 1;
  return window.lines.flatMap((line): Line[] => {
    if (line.depth !== Math.max(0, deepest)) return [line];
    const inside = periods.flatMap((period): Line[] => {
      const values = period.of(line);
      if (!values || period.time === null) return [];
      const { assetId } = line.row;
      return [
        {
          row: {
            key: String(period.time.start),
            name: period.name,
            assetId,
            values: values as readonly ReadoutValue[],
          },
          depth: line.depth + 1,
          path: [...line.path, line.row.key],
          time: period.time,
        },
      ];
    });
    return [line, ...inside];
  });
}
