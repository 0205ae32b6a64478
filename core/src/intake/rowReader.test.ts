import type { FileLayout } from './layout';
import { rowReader, type FileTargets, type Refusal } from './rowReader';

const LAYOUT: FileLayout = {
  separator: ',',
  decimal: '.',
  preambleRows: 0,
  headingRows: 1,
  shape: 'columns',
  blocks: [{ timeColumn: 0, clockColumn: null, valueColumns: [1] }],
  nameColumns: [],
  unitColumn: null,
  timeFormat: 'iso',
  repeatedHour: 'inOrder',
};
const FLOW: FileTargets = {
  by: 'column',
  columns: [{ index: 1, heading: 'Flow', metricId: '7', earliest: null }],
};

function read(
  rows: string[][],
  { layout = {}, targets = FLOW, latest = Infinity, zone = 'Europe/London' } = {} as {
    layout?: Partial<FileLayout>;
    targets?: FileTargets;
    latest?: number;
    zone?: string;
  },
) {
  const refusals: Refusal[] = [];
  const taken: [string, number, number][] = [];
  const reader = rowReader({ ...LAYOUT, ...layout }, targets, zone, latest);
  rows.forEach((cells, i) =>
    reader.read(
      cells,
      i + 2,
      (metricId, t, v) => taken.push([metricId, t, v]),
      (each) => refusals.push(each),
    ),
  );
  return { taken, refusals, counts: reader.counts };
}

describe('rowReader', () => {
  it('names line, column, value and reason of what it refuses, and keeps the rest', () => {
    const { taken, refusals, counts } = read([
      ['2026-01-01', '5'],
      ['soon', '6'],
      ['2026-01-03', 'x'],
      ['2026-01-04', ''],
      ['2026-01-05', '#DIV/0!'],
      ['2026-01-06', 'n/a'],
    ]);
    expect(taken).toEqual([['7', Date.UTC(2026, 0, 1), 5]]);
    expect(refusals).toEqual([
      { line: 3, column: 'time', value: 'soon', reason: 'not a time in the chosen format' },
      { line: 4, column: 'Flow', value: 'x', reason: 'not a number' },
    ]);
    expect(counts.blankCells).toBe(3);
  });

  it('refuses the skipped hour, which never was', () => {
    expect(read([['2026-03-29 01:30', '1']]).refusals[0].reason).toContain('does not exist');
  });

  it('takes the repeated hour as it follows in the file, or as a person says', () => {
    const rows = ['00:30', '01:00', '01:30', '01:00', '01:30', '02:00'].map((clock) => [
      `2026-10-25 ${clock}`,
      '1',
    ]);
    const minutes = (repeatedHour: FileLayout['repeatedHour']): number[] =>
      read(rows, { layout: { repeatedHour } }).taken.map(
        ([, t]) => (t - Date.UTC(2026, 9, 24, 23, 30)) / 60_000,
      );
    expect(minutes('inOrder')).toEqual([0, 30, 60, 90, 120, 150]);
    expect(minutes('first')).toEqual([0, 30, 60, 30, 60, 150]);
    expect(minutes('second')).toEqual([0, 90, 120, 90, 120, 150]);
    expect(read(rows).counts.repeatedHour).toBe(4);
  });

  it('refuses the future, what lies before 1900, and what a metric does not keep any more', () => {
    const { refusals } = read(
      [
        ['2099-01-01', '1'],
        ['1700-01-01', '1'],
        ['2020-01-01', '1'],
      ],
      {
        latest: Date.UTC(2027, 0, 1),
        targets: {
          by: 'column',
          columns: [{ index: 1, heading: 'Flow', metricId: '7', earliest: Date.UTC(2025, 0, 1) }],
        },
      },
    );
    expect(refusals.map(({ reason }) => reason)).toEqual([
      'lies in the future',
      'lies before 1900',
      'older than this metric keeps samples',
    ]);
  });

  it('passes over rows of totals, and counts them', () => {
    const { taken, refusals, counts } = read([
      ['2026-01-01', '5'],
      ['Total', '5'],
      ['Mittelwert', '5'],
    ]);
    expect([taken.length, refusals.length, counts.totalRows]).toEqual([1, 0, 2]);
  });

  it('reads blocks side by side, each with its own times, the shorter one ending in blanks', () => {
    const { taken, refusals } = read(
      [
        ['2026-01-01', '1', '2026-02-01', '10'],
        ['2026-01-02', '2', '', ''],
      ],
      {
        layout: {
          blocks: [
            { timeColumn: 0, clockColumn: null, valueColumns: [1] },
            { timeColumn: 2, clockColumn: null, valueColumns: [3] },
          ],
        },
        targets: {
          by: 'column',
          columns: [
            { index: 1, heading: 'A', metricId: '1', earliest: null },
            { index: 3, heading: 'B', metricId: '2', earliest: null },
          ],
        },
      },
    );
    expect(taken).toEqual([
      ['1', Date.UTC(2026, 0, 1), 1],
      ['2', Date.UTC(2026, 1, 1), 10],
      ['1', Date.UTC(2026, 0, 2), 2],
    ]);
    expect(refusals).toEqual([]);
  });

  it('reads one row per sample by the names in it; names left out are counted', () => {
    const { taken, counts } = read(
      [
        ['2026-01-01', '1', 'Flow', 'Line 2'],
        ['2026-01-01', '2', 'Temp', 'Line 2'],
      ],
      {
        layout: { shape: 'samples', nameColumns: [3, 2] },
        targets: { by: 'name', names: { 'Line 2 / Flow': { metricId: '4', earliest: null } } },
      },
    );
    expect(taken).toEqual([['4', Date.UTC(2026, 0, 1), 1]]);
    expect(counts.leftOut).toBe(1);
  });

  it('joins date and time of day, and reads spreadsheet day numbers on the wall clock', () => {
    const split = { blocks: [{ timeColumn: 0, clockColumn: 2, valueColumns: [1] }] };
    expect(read([['2026-07-01', '1', '06:30']], { layout: split }).taken[0][1]).toBe(
      Date.UTC(2026, 6, 1, 5, 30),
    );
    const serial = read([['46204.25', '1']], { layout: { timeFormat: 'serial' } }).taken[0][1];
    expect(serial).toBe(Date.UTC(2026, 6, 1, 5, 0));
  });
});
