import { parseDuration } from './durationText';
import { isBlankCell, isErrorCell, readSignedNumber, tellingDecimal, type DecimalSign } from './numberText';
import { isClockCell, plainIso, timeFormatTraits } from './timeFormat';

const MAX_DISTINCT = 2000;
const MAX_SIGNS = 12;

/** Counts over all cells of one column. */
export interface ColumnSurvey {
  blank: number;
  errors: number;
  /** Cells that hold anything else. */
  filled: number;
  /** Readable as a number with a dot, with a comma as decimal sign, and only so. */
  dot: number;
  comma: number;
  onlyDot: number;
  onlyComma: number;
  integers: number;
  /** Signs and units beside the numbers. */
  readonly signs: Map<string, number>;
  clocks: number;
  durations: number;
  /** Written times, how many fit each order, how many have two-digit years, how many a time of day other than midnight. */
  written: number;
  readonly fits: { iso: number; 'day-first': number; 'month-first': number; period: number };
  shortYears: number;
  clocked: number;
  /** Bare numbers that could be times. */
  readonly bare: {
    seconds: number;
    milliseconds: number;
    microseconds: number;
    days: number;
    years: number;
    eightDigits: number;
    months: number;
    monthDays: number;
    /** 11.2026 */
    dottedMonths: number;
  };
  /** Numbers never go down. */
  rising: boolean;
  low: number;
  high: number;
  /** Different cells, as long as they are few. */
  distinct: Set<string> | null;
  example: string;
}

export function emptyColumn(): ColumnSurvey {
  return {
    blank: 0,
    errors: 0,
    filled: 0,
    dot: 0,
    comma: 0,
    onlyDot: 0,
    onlyComma: 0,
    integers: 0,
    signs: new Map(),
    clocks: 0,
    durations: 0,
    written: 0,
    fits: { iso: 0, 'day-first': 0, 'month-first': 0, period: 0 },
    shortYears: 0,
    clocked: 0,
    bare: {
      seconds: 0,
      milliseconds: 0,
      microseconds: 0,
      days: 0,
      years: 0,
      eightDigits: 0,
      months: 0,
      monthDays: 0,
      dottedMonths: 0,
    },
    rising: true,
    low: Infinity,
    high: -Infinity,
    distinct: new Set(),
    example: '',
  };
}

/** What all rows of a table say of its columns. */
export interface TableSurvey {
  readonly columns: readonly ColumnSurvey[];
  readonly rows: number;
  /** How many rows have so many cells, blank ones at the end not counted. */
  readonly widths: ReadonlyMap<number, number>;
}

export interface TableSurveyor {
  readonly add: (cells: readonly string[]) => void;
  /**
   * Adds a row in which some cells are known to be plain numbers like those that came before in their columns: they are
   * counted, but not looked at again.
   *
   * @param plain 1 for each such column. @param decimal the decimal sign under which they are numbers.
   */
  readonly addPlain: (cells: readonly string[], plain: Uint8Array, decimal: DecimalSign) => void;
  readonly result: () => TableSurvey;
}

/** Reads rows one after another; keeps only counts, so that all of a file of any size can be judged. */
export function tableSurveyor(): TableSurveyor {
  const columns: ColumnSurvey[] = [];
  const widths = new Map<number, number>();
  let rows = 0;
  let plainRows = 0;
  let plainColumns: Uint8Array = new Uint8Array();
  let plainDecimal: DecimalSign = '.';
  return {
    addPlain(cells, plain, decimal) {
      plainColumns = plain;
      plainDecimal = decimal;
      plainRows++;
      rows++;
      for (let i = 0; i < cells.length; i++) {
        if (plain[i] === 1) continue;
        if (cells[i] === '') columns[i].blank++;
        else addCell(columns[i], cells[i]);
      }
      widths.set(cells.length, (widths.get(cells.length) ?? 0) + 1);
    },
    add(cells) {
      while (columns.length < cells.length) {
        const late = emptyColumn();
        late.blank = rows;
        columns.push(late);
      }
      rows++;
      let width = 0;
      for (let i = 0; i < columns.length; i++) {
        const cell = cells[i];
        if (cell === undefined || cell === '') columns[i].blank++;
        else {
          addCell(columns[i], cell);
          width = i + 1;
        }
      }
      widths.set(width, (widths.get(width) ?? 0) + 1);
    },
    result: () => ({
      columns: columns.map((column, i) =>
        plainColumns[i] === 1 ? withPlainCells(column, plainRows, plainDecimal) : column,
      ),
      rows,
      widths,
    }),
  };
}

/** A column with `n` further cells that are numbers like the others in it. */
function withPlainCells(column: ColumnSurvey, n: number, decimal: DecimalSign): ColumnSurvey {
  const { filled } = column;
  const more = (count: number): number => count + Math.round((n * count) / Math.max(1, filled));
  return {
    ...column,
    filled: filled + n,
    dot: decimal === '.' ? column.dot + n : more(column.dot),
    comma: decimal === ',' ? column.comma + n : more(column.comma),
    onlyDot: more(column.onlyDot),
    onlyComma: more(column.onlyComma),
    integers: more(column.integers),
    // No longer compared, so not known to be few.
    distinct: n > 0 ? null : column.distinct,
  };
}

/** "1.234" may be a decimal or a thousand: three digits follow, and one to three stand before. */
const GROUP_OF_THREE = /^-?[1-9]\d{0,2}[.,]\d{3}$/;
/** Fewer digits before the decimal sign make no spreadsheet day and no epoch. */
const MIN_DIGITS_OF_A_TIME = 5;

function addCell(column: ColumnSurvey, cell: string): void {
  const n = cell.length;
  let sign = 0;
  let signAt = n;
  let i = cell.charCodeAt(0) === 45 ? 1 : 0;
  let plain = i < n;
  for (; i < n && plain; i++) {
    const code = cell.charCodeAt(i);
    if (code >= 48 && code <= 57) continue;
    if (sign === 0 && (code === 46 || code === 44) && n > 1) {
      sign = code;
      signAt = i;
    } else plain = false;
  }
  if (!plain) {
    addOther(column, cell);
    return;
  }
  if (column.filled === 0) column.example = cell;
  column.filled++;
  if (sign === 0) {
    column.integers++;
    column.dot++;
    column.comma++;
    noteDistinct(column, cell);
    noteBare(column, Number(cell), cell, true);
    return;
  }
  const open = n - signAt === 4 && GROUP_OF_THREE.test(cell);
  if (sign === 46) {
    column.dot++;
    if (open) column.comma++;
    else column.onlyDot++;
    if (n - signAt === 5 && /^(?:0?[1-9]|1[0-2])\.\d{4}$/.test(cell)) column.bare.dottedMonths++;
  } else {
    column.comma++;
    if (open) column.dot++;
    else column.onlyComma++;
  }
  if (signAt >= MIN_DIGITS_OF_A_TIME) {
    noteBare(column, Number(sign === 44 ? cell.replace(',', '.') : cell), cell, false);
  }
}

function noteBare(column: ColumnSurvey, value: number, cell: string, whole: boolean): void {
  if (value < column.high) column.rising = false;
  if (value < column.low) column.low = value;
  if (value > column.high) column.high = value;
  const { bare } = column;
  if (value >= 1e8 && value <= 4.11e9) bare.seconds++;
  else if (value >= 1e11 && value <= 4.11e12) bare.milliseconds++;
  else if (value >= 1e14 && value <= 4.11e15) bare.microseconds++;
  else if (value >= 20_000 && value <= 73_050) bare.days++;
  if (!whole) return;
  if (value >= 1 && value <= 12) bare.months++;
  if (value >= 1 && value <= 31) bare.monthDays++;
  if (value >= 1000 && value <= 2200 && cell.length === 4) bare.years++;
  if (cell.length === 8 && timeFormatTraits(cell) !== null) bare.eightDigits++;
}

function addOther(column: ColumnSurvey, cell: string): void {
  const iso = plainIso(cell);
  if (iso !== null && iso.kind !== 'unreadable') {
    if (column.filled === 0) column.example = cell;
    column.filled++;
    column.written++;
    column.fits.iso++;
    column.fits['day-first']++;
    column.fits['month-first']++;
    const t = iso.kind === 'instant' ? iso.t : iso.wallMs;
    if (t % 86_400_000 !== 0) column.clocked++;
    noteDistinct(column, cell);
    return;
  }
  if (isBlankCell(cell) || cell.trim() === '') {
    column.blank++;
    return;
  }
  if (isErrorCell(cell)) {
    column.errors++;
    return;
  }
  if (column.filled === 0) column.example = cell.trim();
  column.filled++;
  noteDistinct(column, cell);
  if (!/\d/.test(cell)) return;
  const traits = timeFormatTraits(cell);
  if (traits) {
    column.written++;
    for (const format of traits.formats) column.fits[format as keyof ColumnSurvey['fits']]++;
    if (traits.shortYear) column.shortYears++;
    if (traits.hasClock && !/[T ]00:00(:00(\.0+)?)?(Z|$)/.test(cell)) column.clocked++;
    return;
  }
  if (isClockCell(cell)) column.clocks++;
  if (!Number.isNaN(parseDuration(cell))) {
    column.durations++;
    return;
  }
  const dot = readSignedNumber(cell, '.');
  const comma = readSignedNumber(cell, ',');
  if (dot) column.dot++;
  if (comma) column.comma++;
  const told = tellingDecimal(cell);
  if (told === '.') column.onlyDot++;
  else if (told === ',') column.onlyComma++;
  const sign = (dot ?? comma)?.sign;
  if (sign && (column.signs.has(sign) || column.signs.size < MAX_SIGNS)) {
    column.signs.set(sign, (column.signs.get(sign) ?? 0) + 1);
  }
}

function noteDistinct(column: ColumnSurvey, cell: string): void {
  if (column.distinct === null) return;
  column.distinct.add(cell);
  if (column.distinct.size > MAX_DISTINCT) column.distinct = null;
}
