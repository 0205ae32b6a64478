import { DateTime } from 'luxon';
import { isCovered, type Level, type TargetBand } from '../bands/targetBand';
import { scaleEnds } from '../bands/scaleEnds';
import type { BaseReadout } from '../board/choices';
import { addsUp } from '../domain/measure';
import type { MeasureValues, QueryAnswer } from '../domain/query';
import { decimalsFor, formatDate } from '../format/format';
import { displayDivisor, displayUnit, dividedBand } from '../format/displayScale';
import { hourText, weekdays } from '../format/formats';
import type { NamedGroup } from '../scope/groupScope';
import { COLUMNS_OF_FOLD, type Fold } from '../time/folds';
import type { Interval } from '../time/interval';
import { steadyZone } from '../time/steadyZone';
import { groupNames, levelFor, readoutQuery } from './readoutValues';
import type { Problem, ReadData, ReadingAnswers, ReadingRequest, ReadoutInputs } from './readoutData';
import { NOTHING_IN_SCOPE } from './valuesData';

/** How a heat grid is laid out: rows by columns. */
export const GRID_LAYOUTS = ['weekdayHour', 'dateHour', 'monthDay', 'groupHour'] as const;
export type GridLayout = (typeof GRID_LAYOUTS)[number];

export const FOLD_OF_LAYOUT: Readonly<Record<GridLayout, Fold>> = {
  weekdayHour: 'hourOfWeek',
  dateHour: 'hourOfDate',
  monthDay: 'dayOfMonth',
  groupHour: 'hourOfDay',
};

/** The choices of a heat grid besides those of every readout. */
export interface GridChoices {
  readonly layout: GridLayout;
  /** Whether its tones follow the size of the values or their levels. */
  readonly tones: 'level' | 'size';
}

/** One cell: every hour or day that falls into it, together. */
export interface HeatCell {
  readonly key: string;
  /** Null without data. Of amounts over several hours the mean of an hour with data. */
  readonly value: number | null;
  readonly level: Level;
  readonly coverage: number;
  readonly samples: number;
  /** Hours that have passed in it; with 0 nothing is to be expected yet. */
  readonly hours: number;
  /** Share of its time that is working time. */
  readonly working: number;
  /** From the beginning of the first hour in it to the end of the last. */
  readonly time: Interval;
  /** The group it belongs to; null of metrics chosen one by one. */
  readonly group: NamedGroup | null;
  readonly column: number;
  /** 1 = Monday … 7; null unless rows are weekdays. */
  readonly weekday: number | null;
  /** "Mon 06:00", "Thu 19 Nov, 06:00", "Dryer 1, 06:00". */
  readonly name: string;
}

export interface GridRow {
  readonly key: string;
  readonly name: string;
  readonly cells: readonly HeatCell[];
}

/** A grid, of several groups one of each. */
export interface Grid {
  readonly key: string;
  /** "" of the only one. */
  readonly name: string;
  readonly rows: readonly GridRow[];
}

export interface GridData extends ReadData {
  readonly grids: readonly Grid[];
  readonly columns: number;
  /** Names of the columns that are written: 0, 6, 12 and 18 o'clock. */
  readonly heads: readonly { readonly column: number; readonly name: string }[];
  readonly unit: string;
  readonly band: TargetBand | null;
  /** Smallest and largest covered value; null if there is none. */
  readonly extent: readonly [number, number] | null;
  /** Whether cells hold the mean of an hour, because their sum would grow with the window. */
  readonly isMeanHour: boolean;
  /** Rows left out because there are too many. */
  readonly leftOut: number;
  readonly readout: BaseReadout & GridChoices;
}

/** Most rows of dates, months or groups that are drawn. */
export const MOST_GRID_ROWS = 120;

export function gridRequests({
  metrics,
  ...shown
}: ReadoutInputs<GridChoices>): readonly ReadingRequest[] | null {
  const { readout } = shown;
  if (readout.measures.length === 0) return [];
  const fold = FOLD_OF_LAYOUT[readout.layout];
  // Only groups are compared side by side; of single metrics the first is shown.
  const ask = readoutQuery(
    { ...shown, readout: { ...readout, measures: readout.measures.slice(0, 1) } },
    metrics,
    { fold },
  );
  return ask && [{ kind: 'query', ask }];
}

export function gridData(
  { readout, metrics }: ReadoutInputs<GridChoices>,
  [given]: ReadingAnswers,
): GridData | Problem {
  const answer = given as QueryAnswer | undefined;
  if (!answer?.cells) return NOTHING_IN_SCOPE;
  const { layout, groupBy, display } = readout;
  const groups = answer.groups.filter(({ name }) => !groupBy || name !== '' || readout.keepBlanks);
  if (groups.length === 0) return NOTHING_IN_SCOPE;
  const columns = COLUMNS_OF_FOLD[FOLD_OF_LAYOUT[layout]];
  const own = metrics.get(readout.measures[0].metricId)?.assetName ?? '';
  const names = groupBy ? groupNames(groups, groupBy) : groups.map(() => (layout === 'groupHour' ? own : ''));
  const [measure] = readout.measures;
  const isMeanHour = addsUp(measure) && (layout === 'weekdayHour' || layout === 'groupHour');
  const by = displayDivisor(display);
  const band = dividedBand(readout.band, by);
  const cellsOf = (group: number, nameOf: (i: number) => string): HeatCell[] =>
    groups[group].measures[0].values.map((_, i) =>
      cellOf(answer, groups[group].measures[0], i, {
        key: `${group} ${i}`,
        name: nameOf(i),
        by,
        band,
        isMeanHour,
        group: groupBy && { name: groups[group].name, assetId: groups[group].assetId },
        weekday: layout === 'weekdayHour' ? Math.floor(i / columns) + 1 : null,
      }),
    );
  const rowNames = namesOfRows(answer, layout);
  const rowsOf = (group: number): GridRow[] => {
    const cells = cellsOf(group, (i) => cellName(layout, rowNames[Math.floor(i / columns)], i % columns));
    return rowNames.map((name, row) => ({
      key: String(row),
      name,
      cells: cells.slice(row * columns, (row + 1) * columns),
    }));
  };
  const grids: Grid[] =
    layout === 'groupHour'
      ? [
          {
            key: '',
            name: '',
            rows: groups.map((group, g) => ({
              key: group.name,
              name: names[g],
              cells: cellsOf(g, (i) => cellName(layout, names[g], i)),
            })),
          },
        ]
      : groups.map((group, g) => ({ key: group.name, name: names[g], rows: ordered(rowsOf(g), layout) }));
  const kept = grids.map((grid) => ({ ...grid, rows: lastRows(grid.rows, layout) }));
  const known = kept.flatMap(({ rows }) =>
    rows.flatMap(({ cells }) =>
      cells.flatMap(({ value, coverage }) => (value !== null && isCovered({ coverage }) ? [value] : [])),
    ),
  );
  const extent = known.length === 0 ? null : ([Math.min(...known), Math.max(...known)] as const);
  const { window, zone, now, units } = answer;
  return {
    grids: kept,
    columns,
    heads: headsOf(layout),
    unit: displayUnit(measure.per?.unit ?? units[0], display),
    band,
    extent,
    isMeanHour,
    leftOut: grids[0].rows.length - kept[0].rows.length,
    decimals: readout.decimals ?? decimalsFor(...scaleEnds(band, known)),
    readout,
    window,
    zone,
    now,
  };
}

/** Copies whose tones all go from the smallest to the largest value of all. */
export function gridsAlike(all: readonly GridData[]): readonly GridData[] {
  const known = all.flatMap(({ extent }) => extent ?? []);
  if (known.length === 0) return all;
  const extent = [Math.min(...known), Math.max(...known)] as const;
  return all.map((data) => ({ ...data, extent }));
}

function cellOf(
  { start, end, cells }: QueryAnswer,
  { values, coverage, samples }: MeasureValues,
  i: number,
  {
    key,
    name,
    by,
    band,
    isMeanHour,
    group,
    weekday,
  }: {
    readonly key: string;
    readonly name: string;
    readonly by: number;
    readonly band: TargetBand | null;
    readonly isMeanHour: boolean;
    readonly group: NamedGroup | null;
    readonly weekday: number | null;
  },
): HeatCell {
  const { columns, hours, working } = cells!;
  const known = values[i];
  const counted = hours[i] * coverage[i];
  const whole = known === null || !isMeanHour ? known : counted > 0 ? known / counted : null;
  const value = whole === null ? null : whole / by;
  return {
    key,
    name,
    value,
    level: levelFor(band, value, coverage[i]),
    coverage: coverage[i],
    samples: samples[i],
    hours: hours[i],
    working: working[i],
    time: { start: start[i], end: end[i] },
    group,
    column: i % columns,
    weekday,
  };
}

/** Names of the rows, in the order of the answer; of groups there is one row each. */
function namesOfRows({ start, end, zone, now, cells }: QueryAnswer, layout: GridLayout): string[] {
  if (layout === 'groupHour') return [''];
  if (layout === 'weekdayHour') return WEEKDAYS;
  const { columns } = cells!;
  return Array.from({ length: start.length / columns }, (_, row) => {
    // A cell without time in it does not say which date its row is.
    const at = Array.from({ length: columns }, (_each, k) => row * columns + k).find(
      (i) => end[i] > start[i],
    );
    if (at === undefined) return '';
    if (layout === 'dateHour') return formatDate(start[at], zone, now);
    return DateTime.fromMillis(start[at], { zone: steadyZone(zone), locale: 'en-GB' }).toFormat('LLL yyyy');
  });
}

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** Weeks begin on the day on which they begin for whoever looks. */
const ordered = (rows: readonly GridRow[], layout: GridLayout): readonly GridRow[] =>
  layout === 'weekdayHour' ? weekdays().map((day) => rows[day - 1]) : rows;

/** The latest dates, or the first groups. */
const lastRows = (rows: readonly GridRow[], layout: GridLayout): readonly GridRow[] =>
  layout === 'groupHour' ? rows.slice(0, MOST_GRID_ROWS) : rows.slice(-MOST_GRID_ROWS);

const cellName = (layout: GridLayout, row: string, column: number): string =>
  layout === 'monthDay' ? `${column + 1} ${row}` : `${row}, ${hourText(column)}`;

function headsOf(layout: GridLayout): GridData['heads'] {
  return layout === 'monthDay'
    ? [1, 8, 15, 22, 29].map((day) => ({ column: day - 1, name: String(day) }))
    : [0, 6, 12, 18].map((hour) => ({ column: hour, name: hourText(hour) }));
}
