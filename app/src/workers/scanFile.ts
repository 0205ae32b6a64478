import {
  compareValues,
  MAX_COMPARED,
  collisionRule,
  MAX_FEEDS,
  recogniseTable,
  rowReader,
  tableSurveyor,
  watchOrder,
  type Balance,
  type Feed,
  type FileLayout,
  type LayoutCorrection,
  type Collisions,
  type Recognised,
  type RowReader,
  type TableSurvey,
  type ReportedLine,
} from '@vivid-beacon/core/src/intakeFiles';
import type { Source } from './sources/source';
import { ReportedLines } from './reportedLines';

/** A series of the file, with the usual time between its samples. */
export interface SeenFeed extends Feed {
  /** Median of the first steps, ms; null for a single sample. */
  readonly stepMs: number | null;
}

/** The result of scanning all of a file; nothing is stored yet. */
export interface FileScan {
  readonly recognised: Recognised;
  readonly encoding: string;
  readonly counted: Source['counted'];
  readonly sheets: readonly string[];
  readonly sheet: string | null;
  readonly feeds: readonly SeenFeed[];
  /** The outcome of every line if all series were taken. */
  readonly balance: Balance;
  /** The first lines that are not simply taken. */
  readonly told: readonly ReportedLine[];
  readonly reportedCounts: ReportedLines['counts'];
  /**
   * Whether the times of every series are monotonic, so that no values can collide and reading need not
   * compare them.
   */
  readonly inOrder: boolean;
}

export interface ScanOptions {
  readonly correct: LayoutCorrection;
  /** Zone of times without an offset. */
  readonly zone: string;
  /** Times after it are refused, ms. */
  readonly latest: number;
  readonly progress: (share: number) => void;
}

const TOLD_OF_A_KIND = 500;
const STEPS_LOOKED_AT = 40;
const ROWS_BEFORE_QUICK = 1000;

/**
 * Recognises a file from all of its rows, with the outcome of each. Rows are read once; again only if all
 * rows say something else than the first ones did, or if values may collide.
 */
export async function scanFile(source: Source, options: ScanOptions): Promise<FileScan> {
  const { correct: given, progress } = options;
  const parts = { ...source.parts, ...given.parts };
  const correct = { ...given, parts: Object.keys(parts).length === 0 ? undefined : parts };
  const recognise = (survey: TableSurvey): Recognised =>
    recogniseTable(
      { head: source.head, separator: source.separator, survey, headings: copyOf(source) },
      correct,
    );

  const draft = recognise(surveyOfHead(source, correct));
  const first = await firstPass(source, draft.layout, options);
  let { pass } = first;
  const recognised = source.whole ? draft : recognise(first.survey);
  const { layout } = recognised;
  const again = async (meetings: Collisions): Promise<Pass> => {
    const next = startReading(layout, options, meetings);
    await goThrough(source, layout, next.reader, next.reader.read, progress);
    return next;
  };
  if (JSON.stringify(layout) !== JSON.stringify(draft.layout)) pass = await again(watchOrder());
  if (!pass.meetings.keepsValues && !pass.meetings.inOrder)
    pass = await again(compareValues(collisionRule(layout)));
  const { balance, feeds } = pass.reader;
  return {
    recognised: {
      ...recognised,
      questions: [...recognised.questions, ...questionsOfValues(layout, pass)],
    },
    encoding: source.encoding,
    counted: source.counted,
    sheets: source.sheets,
    sheet: source.sheet,
    feeds: feeds
      .slice(0, MAX_FEEDS)
      .map((feed) => ({ ...feed, stepMs: median(pass.steps[feed.index] ?? []) })),
    balance,
    told: pass.told.kept,
    reportedCounts: pass.told.counts,
    inOrder: pass.meetings.inOrder,
  };
}

/** Surveys all rows and reads them by the layout of the first ones. */
async function firstPass(
  source: Source,
  layout: FileLayout,
  options: ScanOptions,
): Promise<{ pass: Pass; survey: TableSurvey }> {
  const pass = startReading(
    layout,
    options,
    source.whole ? compareValues(collisionRule(layout)) : watchOrder(),
  );
  const surveyor = tableSurveyor();
  const plain = new Uint8Array(layout.width);
  for (const { valueColumns } of layout.blocks) for (const column of valueColumns) plain[column] = 1;
  let rows = 0;
  const readRow = (cells: readonly string[], line: number): void => {
    // Once rows are known to be in order of time, a row of plain numbers need not be parsed again.
    const quick = !source.whole && ++rows > ROWS_BEFORE_QUICK && pass.meetings.inOrder;
    if (quick && pass.reader.countPlain(cells, line)) {
      surveyor.addPlain(cells, plain, layout.decimal);
      return;
    }
    surveyor.add(cells);
    pass.reader.read(cells, line);
  };
  await goThrough(source, layout, pass.reader, readRow, options.progress);
  return { pass, survey: surveyor.result() };
}

function copyOf({ headings }: Source): readonly string[] | null {
  return headings && [...headings];
}

function surveyOfHead(source: Source, correct: LayoutCorrection): TableSurvey {
  const surveyor = tableSurveyor();
  const { layout } = recogniseTable(
    { head: source.head, separator: source.separator, survey: surveyor.result(), headings: copyOf(source) },
    correct,
  );
  for (const row of source.head.slice(layout.preambleRows + layout.headingRows)) surveyor.add(row);
  return surveyor.result();
}

interface Pass {
  readonly reader: RowReader;
  readonly meetings: Collisions;
  readonly told: ReportedLines;
  /** Times between the first samples of each series. */
  readonly steps: readonly (readonly number[])[];
}

function startReading(layout: FileLayout, { zone, latest }: ScanOptions, meetings: Collisions): Pass {
  const told = new ReportedLines(TOLD_OF_A_KIND);
  const steps: number[][] = [];
  const last: number[] = [];
  const reader = rowReader(layout, {
    zone,
    latest,
    targets: null,
    meetings,
    tell: told.add,
    take: ({ index }, t) => {
      const own = (steps[index] ??= []);
      if (own.length >= STEPS_LOOKED_AT) return;
      const before = last[index];
      if (before !== undefined && t !== before) own.push(Math.abs(t - before));
      last[index] = t;
    },
  });
  return { reader, meetings, told, steps };
}

/**
 * Reads all rows of a file; those above the data are reported as left out.
 *
 * @param readRow reads one row of data. @param between may be waited for after each row.
 */
export async function goThrough(
  source: Source,
  layout: FileLayout,
  reader: RowReader,
  readRow: (cells: readonly string[], line: number) => void,
  progress: (share: number) => void,
  between: () => Promise<unknown> | undefined = () => undefined,
): Promise<void> {
  let row = 0;
  const { preambleRows, headingRows } = layout;
  for await (const { rows, lines, blank, continued, share } of source.rows(reader.refuseLine)) {
    reader.leaveOut('blank', blank);
    reader.leaveOut('continued', continued);
    for (let i = 0; i < rows.length; i++, row++) {
      if (row < preambleRows) reader.leaveOutRow('aboveHeadings', rows[i], lines[i]);
      else if (row < preambleRows + headingRows) reader.leaveOutRow('heading', rows[i], lines[i]);
      else readRow(rows[i], lines[i]);
      const waiting = between();
      if (waiting) await waiting;
    }
    progress(share);
  }
  reader.finish();
}

function questionsOfValues(layout: FileLayout, { reader, meetings }: Pass): Recognised['questions'] {
  const { balance, feeds } = reader;
  if (feeds.length > MAX_FEEDS) {
    return [
      {
        about: 'names',
        words: `The name columns make more than ${MAX_FEEDS.toLocaleString('en-GB')} series. Choose others, or none.`,
      },
    ];
  }
  if (layout.events || layout.collisions !== null) return [];
  if (meetings.overflowed) {
    return [
      {
        about: 'collisions',
        words: `The times of a series go back and forth, and with more than ${MAX_COMPARED / 1e6} million values those that meet cannot be listed beforehand. Say what holds where values of one series meet at one time.`,
      },
    ];
  }
  if (balance.values.met === 0) return [];
  const times =
    balance.values.met === 1
      ? 'Once different values meet'
      : `${balance.values.met.toLocaleString('en-GB')} times different values meet`;
  return [
    {
      about: 'collisions',
      words: `${times} on one series and time. Say what holds, choose a further column that names the series, or count the rows in periods.`,
    },
  ];
}

function median(values: readonly number[]): number | null {
  if (values.length === 0) return null;
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)];
}
