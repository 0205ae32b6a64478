import Papa from 'papaparse';
import { localTimeReader, type Asset, type JobInput, type StopInput } from '@vivid-beacon/core';
import {
  fittingTimeFormats,
  guessSeparator,
  instantOf,
  parseTimeCell,
  type TimeFormat,
} from '@vivid-beacon/core/src/intakeFiles';

/** A row of a log file that was not understood. */
export interface LogRefusal {
  readonly line: number;
  readonly reason: string;
}

export interface LogFile<Entry> {
  readonly entries: readonly Entry[];
  /** Line of each entry. */
  readonly lines: readonly number[];
  readonly refused: readonly LogRefusal[];
}

const COLUMNS = {
  asset: /^(asset|machine|desk|line|equipment)$/i,
  start: /^(start|from|since|begin|stopped|opened)/i,
  end: /^(end|to|until|finish|ended|closed)/i,
  reason: /^(reason|cause)/i,
  category: /^(category|group|type)/i,
  note: /^(note|remark|comment)/i,
  key: /^(key|id|number|no\.?|ticket|job)$/i,
  customer: /^(customer|client)/i,
  owner: /^(owner|person|assigned)/i,
  status: /^(status|state)/i,
  at: /^(at|time|when|changed)/i,
} as const;
type Column = keyof typeof COLUMNS;

interface Table {
  readonly cell: (row: readonly string[], column: Column) => string;
  readonly has: (column: Column) => boolean;
  readonly rows: readonly (readonly string[])[];
  readonly timeFormats: (column: Column) => readonly TimeFormat[];
}

function tableOf(text: string): Table {
  const { data } = Papa.parse<string[]>(text.trim(), {
    delimiter: guessSeparator(text),
    skipEmptyLines: 'greedy',
  });
  const [head = [], ...rows] = data;
  const at = Object.fromEntries(
    Object.entries(COLUMNS).map(([name, pattern]) => [
      name,
      head.findIndex((each) => pattern.test(each.trim())),
    ]),
  ) as Record<Column, number>;
  return {
    rows,
    has: (column) => at[column] >= 0,
    cell: (row, column) => (at[column] < 0 ? '' : (row[at[column]] ?? '').trim()),
    timeFormats: (column) => fittingTimeFormats(rows.map((row) => row[at[column]] ?? '')),
  };
}

/** The ways times of a file may be meant; more than one must be asked about. */
export function timeFormatsOf(text: string, log: 'stops' | 'jobs'): readonly TimeFormat[] {
  return tableOf(text).timeFormats(log === 'stops' ? 'start' : 'at');
}

/** "Plant / Asset" as the parts it is made of, whatever the letter case. */
const partsOf = (name: string): string[] => name.split('/').map((each) => each.trim().toLowerCase());

/** The own names of all assets that a file speaks of, once each. */
export function assetNamesOf(text: string): string[] {
  const table = tableOf(text);
  return [...new Set(table.rows.map((row) => partsOf(table.cell(row, 'asset')).at(-1)!))].filter(Boolean);
}

/** Finds the one asset that a name means. @param assets those with one of the names, with their full names. */
function assetFinder(assets: readonly Asset[]): (name: string) => Asset | null {
  const byName = new Map<string, { asset: Asset; above: string[] }[]>();
  for (const asset of assets) {
    const key = asset.name.toLowerCase();
    const above = asset.title.toLowerCase().split(' / ').slice(0, -1);
    byName.set(key, [...(byName.get(key) ?? []), { asset, above }]);
  }
  return (name) => {
    const parts = partsOf(name);
    const found = (byName.get(parts[parts.length - 1]) ?? []).filter(({ above }) =>
      parts.slice(0, -1).every((part) => above.includes(part)),
    );
    return found.length === 1 ? found[0].asset : null;
  };
}

function reader(assets: readonly Asset[], format: TimeFormat) {
  const find = assetFinder(assets);
  const zones = new Map<string, ReturnType<typeof localTimeReader>>();
  return {
    asset: (name: string): Asset => {
      const asset = find(name);
      if (!asset) throw new Error(`there is no single asset named "${name}"; write it as Plant / Asset`);
      return asset;
    },
    time: (text: string, zone: string): number => {
      const local = zones.get(zone) ?? localTimeReader(zone);
      zones.set(zone, local);
      const when = instantOf(parseTimeCell(text, format), local);
      if ('reason' in when) throw new Error(`"${text}": ${when.reason}`);
      return when.t;
    },
  };
}

function readRows<Entry>(table: Table, read: (row: readonly string[]) => Entry): LogFile<Entry> {
  const entries: Entry[] = [];
  const lines: number[] = [];
  const refused: LogRefusal[] = [];
  table.rows.forEach((row, i) => {
    try {
      entries.push(read(row));
      lines.push(i + 2);
    } catch (error) {
      refused.push({ line: i + 2, reason: (error as Error).message });
    }
  });
  return { entries, lines, refused };
}

/** Stops from a table with asset, start, end, reason and, if there are, category, note and key. */
export function readStops(
  text: string,
  assets: readonly Asset[],
  format: TimeFormat,
): LogFile<StopInput & { key: string | null }> | string {
  const table = tableOf(text);
  for (const need of ['asset', 'start', 'reason'] as const) {
    if (!table.has(need)) return `The first row must name the columns; "${need}" is missing.`;
  }
  const { asset, time } = reader(assets, format);
  return readRows(table, (row) => {
    const { id, zone } = asset(table.cell(row, 'asset'));
    const start = time(table.cell(row, 'start'), zone);
    const ended = table.cell(row, 'end');
    const end = ended === '' || ended === '-' ? null : time(ended, zone);
    const reason = table.cell(row, 'reason');
    if (reason === '') throw new Error('the reason is missing');
    if (end !== null && end <= start) throw new Error('ends before it starts');
    return {
      assetId: id,
      start,
      end,
      reason,
      category: table.cell(row, 'category'),
      note: table.cell(row, 'note'),
      // Without a number of its own the place and start make one, so that the same file adds nothing twice.
      key: table.cell(row, 'key') || `${start}`,
    };
  });
}

/** Jobs from a table with one row for each change of status: asset, number, at, status. */
export function readJobs(
  text: string,
  assets: readonly Asset[],
  format: TimeFormat,
): LogFile<JobInput> | string {
  const table = tableOf(text);
  for (const need of ['asset', 'key', 'at', 'status'] as const) {
    if (!table.has(need)) {
      return `The first row must name the columns; "${need === 'key' ? 'number' : need}" is missing.`;
    }
  }
  const { asset, time } = reader(assets, format);
  const rows = readRows(table, (row) => {
    const { id, zone } = asset(table.cell(row, 'asset'));
    const number = table.cell(row, 'key');
    if (number === '') throw new Error('the number of the job is missing');
    const change = { at: time(table.cell(row, 'at'), zone), status: table.cell(row, 'status') };
    if (change.status === '') throw new Error('the status is missing');
    return {
      assetId: id,
      number,
      category: table.cell(row, 'category'),
      customer: table.cell(row, 'customer'),
      owner: table.cell(row, 'owner'),
      fields: {},
      history: [change],
    };
  });
  const jobs = new Map<string, { job: JobInput; line: number }>();
  rows.entries.forEach((entry, i) => {
    const key = `${entry.assetId} ${entry.number}`;
    const known = jobs.get(key);
    const history = [...(known?.job.history ?? []), ...entry.history].sort((a, b) => a.at - b.at);
    const apart = history.filter((each, k) => k === 0 || each.at > history[k - 1].at);
    jobs.set(key, { job: { ...(known?.job ?? entry), history: apart }, line: known?.line ?? rows.lines[i] });
  });
  const all = [...jobs.values()];
  return { entries: all.map(({ job }) => job), lines: all.map(({ line }) => line), refused: rows.refused };
}
