import { emptyBalance, type Balance, type LeftOutReason, type ReportedLine } from './balance';
import { parseDuration } from './durationText';
import {
  columnOfTimesAcross,
  feedRegistry,
  MAX_FEEDS,
  type Feed,
  type FileTarget,
  type FileTargets,
} from './feeds';
import { headingAgain } from './headingAgain';
import { COUNT_COLUMN, collisionRule, nameOfRow, type Block, type FileLayout } from './layout';
import { compareValues, type Collisions } from './collisions';
import { isBlankCell, isErrorCell, plainNumber, readSignedNumber } from './numberText';
import { periodOf, rowClock, timeText } from './rowTime';
import { isTotalWord, totalCheck } from './totals';

export { EARLIEST_TIME } from './rowTime';

export interface RowReaderOptions {
  /** Zone of times without an offset. */
  readonly zone: string;
  /** Times after it are refused, ms (the caller's now plus what it tolerates). */
  readonly latest: number;
  /** null to scan only: every series is read. */
  readonly targets: FileTargets | null;
  readonly meetings?: Collisions;
  /** Takes a value. Values that are added up are handed over by `finish`. */
  readonly take: (feed: Feed, t: number, v: number) => void;
  /** Called for every line that is not simply taken. */
  readonly tell: (told: ReportedLine) => void;
}

export interface RowReader {
  readonly balance: Balance;
  /** The series found so far, in order. */
  readonly feeds: readonly Feed[];
  /** Reads one row of data. */
  readonly read: (cells: readonly string[], line: number) => void;
  /**
   * Counts a row with only a time and plain numbers, without emitting its values: enough for a scan, in a
   * third of the time. Only rows of a layout without names, whose series have all been seen, are so plain.
   *
   * @returns false for any other row; {@link RowReader.read} must read it then.
   */
  readonly countPlain: (cells: readonly string[], line: number) => boolean;
  /** Notes lines that hold no data. */
  readonly leaveOut: (reason: LeftOutReason, lines: number) => void;
  /** Notes a line above the data, with its content. */
  readonly leaveOutRow: (reason: LeftOutReason, cells: readonly string[], line: number) => void;
  /** Notes a line that could not be split into cells. */
  readonly refuseLine: (line: number, text: string, reason: string) => void;
  /** Emits the added-up values. Call it once, after the last row. */
  readonly finish: () => void;
}

/** What happened in one row; decides the outcome of its line. */
interface RowCounts {
  taken: number;
  refused: number;
  repeated: number;
  notChosen: number;
}

/**
 * Makes a reader of the rows of one file. Every line ends as taken, refused, left out or repeated, and every cell of a
 * column that is taken is counted: the balance adds up to the lines of the file.
 */
export function rowReader(layout: FileLayout, options: RowReaderOptions): RowReader {
  const { zone, latest, targets, take, tell } = options;
  const { nameColumns, unitColumn, width, events, decimal } = layout;
  const adds = events !== null || layout.collisions === 'sum' || layout.collisions === 'mean';
  const rule = collisionRule(layout);
  const meetings = options.meetings ?? compareValues(rule);
  const balance = emptyBalance();
  const clock = rowClock(layout, zone, latest);
  const period = events ? periodOf(events, zone) : null;
  const totals = totalCheck();
  const carried = new Map<number, string>();
  const durations = new Set(layout.durations);
  const { feeds, feedOf } = feedRegistry(layout);
  const named = nameColumns.length > 0;
  const targetOfFeed: (FileTarget | null)[] = [];
  const acrossColumn = columnOfTimesAcross(layout);
  const isHeadingAgain = headingAgain(layout);

  const refuse = (tally: RowCounts, line: number, column: string, value: string, reason: string): void => {
    tally.refused++;
    balance.values.refused++;
    tell({ kind: 'refused', line, column, value: clip(value), reason });
  };

  /** Sign or unit beside the number read last; null when it has none. */
  let signRead: string | null = null;

  const numberIn = (cell: string, column: number, line: number, tally: RowCounts): number | null => {
    signRead = null;
    const plain = plainNumber(cell, decimal);
    if (plain === plain) return plain;
    if (isBlankCell(cell) || cell.trim() === '') {
      balance.values.blank++;
      return null;
    }
    if (isErrorCell(cell)) {
      balance.values.errors++;
      return null;
    }
    if (durations.has(column)) {
      const seconds = parseDuration(cell);
      if (!Number.isNaN(seconds)) return seconds;
    }
    const read = readSignedNumber(cell, decimal);
    if (read && Number.isFinite(read.value)) {
      signRead = read.sign;
      return read.value;
    }
    refuse(tally, line, layout.headings[column], cell, 'not a number');
    return null;
  };

  /** Takes one value unless it repeats an earlier line. */
  const put = (feed: Feed, t: number, value: number, line: number, tally: RowCounts): void => {
    const met = meetings.meet(feed.index, t, value, line);
    if (met.kind === 'new') {
      tally.taken++;
      balance.values.taken++;
      feed.samples++;
      if (!adds) take(feed, t, value);
      return;
    }
    const where = { line, column: feed.label, value: String(value) };
    if (met.kind === 'repeated') {
      balance.values.repeated++;
      tally.repeated++;
      tell({ kind: 'repeated', ...where, reason: `says the same as line ${met.line}` });
      return;
    }
    balance.values.met++;
    // Events add up by design; elsewhere a person should know.
    if (!events) {
      tell({
        kind: 'met',
        ...where,
        reason: `line ${met.line} has ${met.value} for the same series and time`,
      });
    }
    if (adds || rule === 'last') tally.taken++;
    else tally.repeated++;
    if (rule === 'last' && !adds) take(feed, t, value);
  };

  const isBlankBlock = (columns: readonly number[], cells: readonly string[]): boolean => {
    for (const column of columns) if (!isBlankCell(cellAt(cells, column))) return false;
    return true;
  };

  const readBlock = (
    block: Block,
    k: number,
    cells: readonly string[],
    line: number,
    tally: RowCounts,
  ): void => {
    const { valueColumns } = block;
    if (valueColumns.length === 0) return;
    const name = named ? nameOfRow(cells, nameColumns) : '';
    const written = block.written ?? (layout.fixedTime === null ? timeText(cells, block) : '');
    // A group that is shorter than the one beside it ends in blank cells.
    if (layout.blocks.length > 1 && written.trim() === '' && isBlankBlock(valueColumns, cells)) return;
    if (named && name === '' && !isBlankBlock(valueColumns, cells)) {
      refuse(tally, line, 'name', '', 'no name says which series this is');
      return;
    }
    let t = layout.fixedTime ?? 0;
    if (layout.fixedTime === null) {
      const when = clock(written, named ? `${k} ${name}` : k);
      if ('reason' in when) {
        if (written.trim() === '' && isBlankBlock(valueColumns, cells)) return;
        refuse(
          tally,
          line,
          'time',
          written,
          written.trim() === '' ? 'no time says when this was' : when.reason,
        );
        return;
      }
      if (when.repeated) balance.repeatedHour++;
      t = when.t;
    }
    if (period) t = period(t);
    for (const column of valueColumns) {
      const cell = cellAt(cells, column);
      const value = numberIn(cell, column, line, tally);
      if (value !== null) totals.add(column, value);
      if (value !== null) readValue(value, acrossColumn ?? column, name, cell, cells, t, line, tally);
    }
  };

  const readValue = (
    value: number,
    column: number,
    name: string,
    cell: string,
    cells: readonly string[],
    t: number,
    line: number,
    tally: RowCounts,
  ): void => {
    const feed = feedOf(name, column, cells, line, cell);
    if (feed.index >= MAX_FEEDS) {
      refuse(tally, line, feed.label, cell, `more than ${MAX_FEEDS} series in one file`);
      return;
    }
    const unit = unitColumn === null ? signRead : (cells[unitColumn] ?? '').trim() || signRead;
    if (unit !== null) {
      feed.sign ??= unit;
      if (unit !== feed.sign) {
        refuse(tally, line, feed.label, cell, `is in ${unit}, but the series is in ${feed.sign}`);
        return;
      }
    }
    let at = t;
    if (targets) {
      const target = targetOf(feed);
      if (target === null) {
        balance.values.notChosen++;
        tally.notChosen++;
        return;
      }
      at = t - target.shiftMs;
      if (target.earliest !== null && at < target.earliest) {
        refuse(tally, line, feed.label, new Date(t).toISOString(), 'older than this metric keeps samples');
        return;
      }
    }
    put(feed, at, value, line, tally);
  };

  const targetOf = (feed: Feed): FileTarget | null => {
    const known = targetOfFeed[feed.index];
    if (known !== undefined) return known;
    const found = Object.hasOwn(targets!, feed.key) ? targets![feed.key] : null;
    targetOfFeed[feed.index] = found;
    return found;
  };

  const surplusOf = (cells: readonly string[]): string | undefined => {
    for (let i = width; i < cells.length; i++) if (cells[i].trim() !== '') return cells[i];
    return undefined;
  };

  const isTotal = (cells: readonly string[]): boolean => {
    if (!isTotalWord(cells) || layout.fixedTime !== null) return false;
    if (
      layout.blocks.some(
        (block, k) => block.written === undefined && !('reason' in clock(timeText(cells, block), -1 - k)),
      )
    )
      return false;
    const numbers = layout.blocks.flatMap(({ valueColumns }) =>
      valueColumns.flatMap((column): [number, number][] => {
        const read = column === COUNT_COLUMN ? null : readSignedNumber(cells[column] ?? '', decimal);
        return read ? [[column, read.value]] : [];
      }),
    );
    return totals.fits(numbers);
  };

  const leaveOutRow: RowReader['leaveOutRow'] = (reason, cells, line) => {
    balance.lines++;
    balance.leftOut[reason]++;
    const value = clip(cells.filter((cell) => cell.trim() !== '').join(' · '));
    tell({ kind: 'leftOut', line, column: '', value, reason: REASON_WORDS[reason] });
  };

  const plain = targets === null && !meetings.keepsValues ? plainBlockOf(layout) : null;
  const plainValues = new Float64Array(plain?.valueColumns.length ?? 0);

  return {
    balance,
    feeds,
    countPlain(cells, line) {
      if (plain === null || feeds.length !== plain.valueColumns.length || cells.length !== width)
        return false;
      const { valueColumns } = plain;
      for (let i = 0; i < valueColumns.length; i++) {
        const value = plainNumber(cells[valueColumns[i]], decimal);
        if (value !== value) return false;
        plainValues[i] = value;
      }
      const when = clock(cells[plain.timeColumns[0]], 0);
      if ('reason' in when) return false;
      if (when.repeated) balance.repeatedHour++;
      for (let i = 0; i < valueColumns.length; i++) {
        const feed = feedOf('', valueColumns[i], cells, line, '');
        totals.add(valueColumns[i], plainValues[i]);
        meetings.meet(feed.index, when.t, plainValues[i], line);
        feed.samples++;
      }
      balance.lines++;
      balance.taken++;
      balance.values.taken += valueColumns.length;
      return true;
    },
    read(given, line) {
      const surplus = surplusOf(given);
      const tally: RowCounts = { taken: 0, refused: 0, repeated: 0, notChosen: 0 };
      if (surplus !== undefined) {
        balance.lines++;
        balance.refused++;
        balance.values.refused++;
        tell({
          kind: 'refused',
          line,
          column: `cell ${width + 1}`,
          value: clip(given.join(' · ')),
          reason: `has ${given.length} cells, but the table has ${width} columns`,
        });
        return;
      }
      if (isHeadingAgain(given)) return leaveOutRow('headingAgain', given, line);
      const cells = layout.carriedDown.length === 0 ? given : carry(given);
      if (layout.totals === 'leftOut' && isTotal(cells)) {
        totals.endBlock();
        return leaveOutRow('total', given, line);
      }
      balance.lines++;
      if (layout.separator !== null && given.length < width) {
        balance.shortRows++;
        tell({
          kind: 'short',
          line,
          column: `cell ${given.length + 1}`,
          value: clip(given.join(' · ')),
          reason: `has only ${given.length} of ${width} cells`,
        });
      }
      for (let k = 0; k < layout.blocks.length; k++) readBlock(layout.blocks[k], k, cells, line, tally);
      if (tally.taken > 0) balance.taken++;
      else if (tally.refused > 0) balance.refused++;
      else if (tally.repeated > 0) balance.repeated++;
      else {
        const reason = tally.notChosen > 0 ? 'notChosen' : 'noValue';
        balance.leftOut[reason]++;
        const value = clip(given.filter((cell) => cell.trim() !== '').join(' · '));
        tell({ kind: 'leftOut', line, column: '', value, reason: REASON_WORDS[reason] });
      }
    },
    leaveOut(reason, lines) {
      balance.lines += lines;
      balance.leftOut[reason] += lines;
    },
    leaveOutRow,
    refuseLine(line, text, reason) {
      balance.lines++;
      balance.refused++;
      tell({ kind: 'refused', line, column: '', value: clip(text), reason });
    },
    finish() {
      if (adds) meetings.each((series, t, value) => take(feeds[series], t, value));
    },
  };

  function carry(cells: readonly string[]): readonly string[] {
    const copy = [...cells];
    for (const i of layout.carriedDown) {
      if ((copy[i] ?? '').trim() === '') copy[i] = carried.get(i) ?? '';
      else carried.set(i, copy[i]);
    }
    return copy;
  }
}

const REASON_WORDS: Readonly<Record<LeftOutReason, string>> = {
  aboveHeadings: 'stands above the headings',
  heading: 'is a heading',
  headingAgain: 'repeats the headings',
  blank: 'is blank',
  continued: 'lies inside a quoted cell',
  total: 'holds the total of the rows above',
  noValue: 'has no value in any column that is taken',
  notChosen: 'belongs to series that are left out',
};

/** The one group of columns of a layout in which a row may be just a time and numbers; null where rows say more. */
function plainBlockOf(layout: FileLayout): Block | null {
  const { blocks, nameColumns, carriedDown, durations, events, fixedTime } = layout;
  const [block] = blocks;
  const simple =
    blocks.length === 1 &&
    block.written === undefined &&
    block.timeColumns.length === 1 &&
    nameColumns.length + carriedDown.length + durations.length === 0 &&
    layout.unitColumn === null &&
    events === null &&
    fixedTime === null &&
    !block.valueColumns.includes(COUNT_COLUMN);
  return simple ? block : null;
}

/** Rows that are counted all hold a 1. */
function cellAt(cells: readonly string[], column: number): string {
  return column === COUNT_COLUMN ? '1' : (cells[column] ?? '');
}

function clip(text: string): string {
  return text.length > 200 ? `${text.slice(0, 199)}…` : text;
}
