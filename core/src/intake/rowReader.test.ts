import fc from 'fast-check';
import { leftOutLines, unexplained, type ReportedLine } from './balance';
import type { FileLayout } from './layout';
import { compareValues, watchOrder } from './collisions';
import type { FileTargets } from './feeds';
import { rowReader } from './rowReader';

const LAYOUT: FileLayout = {
  separator: ',',
  decimal: '.',
  preambleRows: 0,
  headingRows: 1,
  width: 2,
  headings: ['Time', 'Flow'],
  units: [],
  blocks: [{ timeColumns: [0], timeParts: ['time'], valueColumns: [1] }],
  nameColumns: [],
  unitColumn: null,
  carriedDown: [],
  durations: [],
  timeFormat: 'iso',
  century: null,
  fixedTime: null,
  repeatedHour: 'inOrder',
  stamped: null,
  collisions: null,
  events: null,
  totals: 'leftOut',
};

interface ReadOptions {
  readonly layout?: Partial<FileLayout>;
  readonly targets?: FileTargets | null;
  readonly latest?: number;
  readonly zone?: string;
}

function read(
  rows: readonly (readonly string[])[],
  { layout = {}, targets = null, latest = Infinity, zone = 'Europe/London' }: ReadOptions = {},
) {
  const told: ReportedLine[] = [];
  const taken: [string, number, number][] = [];
  const reader = rowReader(
    { ...LAYOUT, ...layout },
    {
      zone,
      latest,
      targets,
      take: ({ label }, t, v) => taken.push([label, t, v]),
      tell: (each) => told.push(each),
    },
  );
  rows.forEach((cells, i) => reader.read(cells, i + 2));
  reader.finish();
  const of = (kind: ReportedLine['kind']): ReportedLine[] => told.filter((each) => each.kind === kind);
  return { taken, told, of, balance: reader.balance, feeds: reader.feeds };
}

describe('rowReader', () => {
  it('names line, column, value and reason of what it refuses, and keeps the rest', () => {
    const { taken, of, balance } = read([
      ['2026-01-01', '5'],
      ['soon', '6'],
      ['2026-01-03', 'x'],
      ['2026-01-04', ''],
      ['2026-01-05', '#DIV/0!'],
      ['2026-01-06', 'n/a'],
    ]);
    expect(taken).toEqual([['Flow', Date.UTC(2026, 0, 1), 5]]);
    expect(of('refused')).toEqual([
      { kind: 'refused', line: 3, column: 'time', value: 'soon', reason: 'not a time in the chosen format' },
      { kind: 'refused', line: 4, column: 'Flow', value: 'x', reason: 'not a number' },
    ]);
    expect(balance).toMatchObject({ lines: 6, taken: 1, refused: 2, values: { blank: 2, errors: 1 } });
    expect(balance.leftOut.noValue).toBe(3);
  });

  it('refuses the skipped hour, which never was', () => {
    expect(read([['2026-03-29 01:30', '1']]).of('refused')[0].reason).toContain('does not exist');
  });

  it('takes the repeated hour as it follows in the file, or as a person says', () => {
    const rows = ['00:30', '01:00', '01:30', '01:00', '01:30', '02:00'].map((clock, i) => [
      `2026-10-25 ${clock}`,
      String(i),
    ]);
    const minutes = (repeatedHour: FileLayout['repeatedHour']): number[] =>
      read(rows, { layout: { repeatedHour, collisions: 'last' } }).taken.map(
        ([, t]) => (t - Date.UTC(2026, 9, 24, 23, 30)) / 60_000,
      );
    expect(minutes('inOrder')).toEqual([0, 30, 60, 90, 120, 150]);
    expect(minutes('first')).toEqual([0, 30, 60, 30, 60, 150]);
    expect(minutes('second')).toEqual([0, 90, 120, 90, 120, 150]);
    expect(read(rows).balance.repeatedHour).toBe(4);
  });

  it('refuses the future, what lies before 1500, and what a metric does not keep any more', () => {
    const { of } = read(
      [
        ['2099-01-01', '1'],
        ['1400-01-01', '1'],
        ['2020-01-01', '1'],
      ],
      {
        latest: Date.UTC(2027, 0, 1),
        targets: { '1': { metricId: '7', earliest: Date.UTC(2025, 0, 1), shiftMs: 0 } },
      },
    );
    expect(of('refused').map(({ reason }) => reason)).toEqual([
      'lies in the future',
      'lies before 1500',
      'older than this metric keeps samples',
    ]);
  });

  it('leaves a total out only where its numbers say so', () => {
    const { taken, balance, of } = read([
      ['2026-01-01', '5'],
      ['2026-01-02', '6'],
      ['Total', '11'],
      ['Mittelwert', '5.5'],
      ['Sum of another', '99'],
    ]);
    expect([taken.length, balance.leftOut.total, balance.refused]).toEqual([2, 2, 1]);
    expect(of('refused')[0]).toMatchObject({ line: 6, value: 'Sum of another' });
    const names = read([['2026-01-01', '5', 'Total flow']], { layout: { width: 3, nameColumns: [2] } });
    expect(names.taken).toEqual([['Total flow', Date.UTC(2026, 0, 1), 5]]);
  });

  it('takes back what it held for a total when told to read it', () => {
    const rows = [
      ['2026-01-01', '5'],
      ['Total', '5'],
    ];
    expect(read(rows, { layout: { totals: 'read' } }).balance).toMatchObject({
      refused: 1,
      leftOut: { total: 0 },
    });
  });

  it('reads blocks side by side, each with its own times, the shorter one ending in blanks', () => {
    const block = (time: number, value: number) => ({
      timeColumns: [time],
      timeParts: ['time' as const],
      valueColumns: [value],
    });
    const { taken, told } = read(
      [
        ['2026-01-01', '1', '2026-02-01', '10'],
        ['2026-01-02', '2', '', ''],
      ],
      { layout: { width: 4, headings: ['T', 'A', 'T', 'B'], blocks: [block(0, 1), block(2, 3)] } },
    );
    expect(taken).toEqual([
      ['A', Date.UTC(2026, 0, 1), 1],
      ['B', Date.UTC(2026, 1, 1), 10],
      ['A', Date.UTC(2026, 0, 2), 2],
    ]);
    expect(told).toEqual([]);
  });

  it('makes a series for each pair of name and value column; those without a target are left out and counted', () => {
    const layout = {
      width: 4,
      headings: ['Time', 'Flow', 'Temp', 'Line'],
      nameColumns: [3],
      blocks: [{ timeColumns: [0], timeParts: ['time' as const], valueColumns: [1, 2] }],
    };
    const rows = [
      ['2026-01-01', '1', '60', 'Line 1'],
      ['2026-01-01', '2', '61', 'Line 2'],
    ];
    expect(read(rows, { layout }).feeds.map(({ label }) => label)).toEqual([
      'Line 1 / Flow',
      'Line 1 / Temp',
      'Line 2 / Flow',
      'Line 2 / Temp',
    ]);
    const key = read(rows, { layout }).feeds[1].key;
    const one = read(rows, { layout, targets: { [key]: { metricId: '4', earliest: null, shiftMs: 0 } } });
    expect(one.taken).toEqual([['Line 1 / Temp', Date.UTC(2026, 0, 1), 60]]);
    expect(one.balance).toMatchObject({ taken: 1, leftOut: { notChosen: 1 }, values: { notChosen: 3 } });
  });

  it('refuses a row with more cells than the table, and tells of one with fewer', () => {
    const { taken, balance, of } = read([['2026-01-01', '1', '5'], ['2026-01-02'], ['2026-01-03', '3', ' ']]);
    expect(taken.map(([, , v]) => v)).toEqual([3]);
    expect(of('refused')[0].reason).toBe('has 3 cells, but the table has 2 columns');
    expect(of('short')[0]).toMatchObject({ line: 3, reason: 'has only 1 of 2 cells' });
    expect(balance.shortRows).toBe(1);
  });

  it('tells values that meet with both lines, and combines them as a person says', () => {
    const rows = [
      ['2026-01-01', '1'],
      ['2026-01-01', '1'],
      ['2026-01-01', '4'],
    ];
    const by = (collisions: FileLayout['collisions']) => read(rows, { layout: { collisions } });
    expect(by(null).of('repeated')[0]).toMatchObject({ line: 3, reason: 'says the same as line 2' });
    expect(by(null).of('met')[0]).toMatchObject({
      line: 4,
      value: '4',
      reason: 'line 2 has 1 for the same series and time',
    });
    expect(by('first').taken.map(([, , v]) => v)).toEqual([1]);
    expect(by('last').taken.map(([, , v]) => v)).toEqual([1, 4]);
    expect(by('sum').taken.map(([, , v]) => v)).toEqual([6]);
    expect(by('mean').taken.map(([, , v]) => v)).toEqual([2]);
  });

  it('counts events in periods of the site, and adds values up', () => {
    const rows = [
      ['2026-06-30 23:30', '2'],
      ['2026-07-01 00:30', '3'],
      ['2026-07-01 09:00', '4'],
    ];
    const days = (layout: Partial<FileLayout>) =>
      read(rows, { layout }).taken.map(([, t, v]) => [new Date(t).toISOString(), v]);
    const counted = { blocks: [{ ...LAYOUT.blocks[0], valueColumns: [-1] }] };
    expect(days({ ...counted, events: { per: 'day', of: 'count' } })).toEqual([
      ['2026-06-29T23:00:00.000Z', 1],
      ['2026-06-30T23:00:00.000Z', 2],
    ]);
    expect(days({ events: { per: 'month', of: 'sum' } })).toEqual([
      ['2026-05-31T23:00:00.000Z', 2],
      ['2026-06-30T23:00:00.000Z', 7],
    ]);
  });

  it('carries names down, reads lengths of time in seconds, and repeats of the headings as such', () => {
    const { taken, balance } = read(
      [
        ['Dryer 1', '2026-01-01', '01:30'],
        ['', '2026-01-02', '00:00:10'],
        ['Machine', 'Time', 'Run'],
      ],
      {
        layout: {
          width: 3,
          headings: ['Machine', 'Time', 'Run'],
          nameColumns: [0],
          carriedDown: [0],
          durations: [2],
          blocks: [{ timeColumns: [1], timeParts: ['time'], valueColumns: [2] }],
        },
      },
    );
    expect(taken.map(([name, , v]) => [name, v])).toEqual([
      ['Dryer 1', 5400],
      ['Dryer 1', 10],
    ]);
    expect(balance.leftOut.headingAgain).toBe(1);
  });

  it('never mixes units in one series: a number in another unit is refused', () => {
    const { taken, of } = read([
      ['2026-01-01', '5 kg'],
      ['2026-01-02', '6'],
      ['2026-01-03', '700 g'],
    ]);
    expect(taken.map(([, , v]) => v)).toEqual([5, 6]);
    expect(of('refused')[0].reason).toBe('is in g, but the series is in kg');
    const column = read(
      [
        ['2026-01-01', '5', 'kWh'],
        ['2026-01-02', '6', 'MWh'],
      ],
      { layout: { width: 3, unitColumn: 2 } },
    );
    expect(column.of('refused')[0].reason).toBe('is in MWh, but the series is in kWh');
  });

  it('reads times that run across, each in the heading of its column', () => {
    const blocks = ['Jan 2026', 'Feb 2026'].map((written, i) => ({
      timeColumns: [],
      timeParts: [],
      valueColumns: [i + 1],
      written,
    }));
    const { taken, balance } = read(
      [
        ['Quayside', '1', '2'],
        ['Upper Weir', '3', ''],
        ['Total', '4', '2'],
      ],
      {
        layout: {
          width: 3,
          blocks,
          nameColumns: [0],
          timeFormat: 'period',
          headings: ['Plant', 'Jan 2026', 'Feb 2026'],
        },
      },
    );
    expect(taken).toEqual([
      ['Quayside', Date.UTC(2026, 0, 1), 1],
      ['Quayside', Date.UTC(2026, 1, 1), 2],
      ['Upper Weir', Date.UTC(2026, 0, 1), 3],
    ]);
    expect(balance.leftOut.total).toBe(1);
  });

  it('joins the parts of a time, and reads spreadsheet days on the wall clock', () => {
    const split: Partial<FileLayout> = {
      width: 3,
      blocks: [{ timeColumns: [0, 2], timeParts: ['time', 'clock'], valueColumns: [1] }],
    };
    expect(read([['2026-07-01', '1', '06:30']], { layout: split }).taken[0][1]).toBe(
      Date.UTC(2026, 6, 1, 5, 30),
    );
    const serial = (days: string, layout: Partial<FileLayout>) =>
      read([[days, '1', '06:00']], { layout: { width: 3, timeFormat: 'serial', ...layout } }).taken[0][1];
    expect(serial('46204.25', {})).toBe(Date.UTC(2026, 6, 1, 5, 0));
    expect(serial('46204', split)).toBe(Date.UTC(2026, 6, 1, 5, 0));
    const parts: Partial<FileLayout> = {
      width: 4,
      blocks: [{ timeColumns: [0, 2, 3], timeParts: ['year', 'month', 'day'], valueColumns: [1] }],
    };
    expect(read([['2026', '1', 'Jul', '1']], { layout: parts }).taken[0][1]).toBe(Date.UTC(2026, 5, 30, 23));
  });

  it('says of zones that are none, and of periods among days, why they are refused', () => {
    const why = (time: string): string => read([[time, '1']]).of('refused')[0].reason;
    expect(why('2026-01-01 06:00 Atlantis/Nowhere')).toBe('there is no time zone "Atlantis/Nowhere"');
    expect(why('2026-01-01 06:00 IST')).toContain('several zones are called IST');
    expect(why('2026-01')).toContain('names a period');
  });

  it('explains every line and every number, whatever a file holds', () => {
    const time = fc.constantFrom('2026-01-01', '2026-01-02', '2026-01-03 06:00', 'soon', '', 'Total');
    const value = fc.oneof(
      fc.constantFrom('', 'x', '-', '#REF!', '12 %', '(3)'),
      fc.integer({ min: -9, max: 9 }).map(String),
    );
    const row = fc.tuple(time, value, fc.constantFrom('a', 'b', ''), fc.option(value, { nil: undefined }));
    const rule = fc.constantFrom(null, 'last', 'first', 'sum', 'mean');
    fc.assert(
      fc.property(fc.array(row, { maxLength: 30 }), rule, fc.boolean(), (rows, collisions, named) => {
        const cells = rows.map((each) => each.filter((cell): cell is string => cell !== undefined));
        const { balance, taken, told } = read(cells, {
          layout: { width: 3, headings: ['Time', 'Flow', 'Line'], nameColumns: named ? [2] : [], collisions },
        });
        expect(unexplained(balance)).toBe(0);
        expect(balance.lines).toBe(rows.length);
        const { values } = balance;
        const reportedLines = new Set(told.map(({ line }) => line));
        // Every line with a number is stored or reported.
        const silent = cells.filter((_, i) => !reportedLines.has(i + 2)).length;
        expect(silent).toBeLessThanOrEqual(balance.taken);
        const stored = new Set(taken.map(([label, t]) => `${label} ${t}`)).size;
        expect(stored).toBe(values.taken);
        expect(balance.taken + balance.refused + balance.repeated + leftOutLines(balance)).toBe(
          balance.lines,
        );
      }),
    );
  });
});

describe('compareValues', () => {
  it('finds every meeting, however the rows are ordered, as a map does', () => {
    const entry = fc.tuple(
      fc.nat(3),
      fc.integer({ min: -5, max: 50 }).map((n) => n * 3_600_000),
      fc.nat(2),
    );
    fc.assert(
      fc.property(fc.array(entry, { maxLength: 3000 }), (entries) => {
        const meetings = compareValues('last');
        const known = new Map<string, number>();
        for (const [series, t, v] of entries) {
          const before = known.get(`${series} ${t}`);
          const kind = before === undefined ? 'new' : before === v ? 'repeated' : 'differs';
          expect(meetings.meet(series, t, v, 1).kind).toBe(kind);
          known.set(`${series} ${t}`, v);
        }
      }),
      { numRuns: 30 },
    );
  });

  it('says when it cannot keep more values', () => {
    const meetings = compareValues(null, 2);
    [1, 2, 3].forEach((t) => meetings.meet(0, t, 1, 1));
    expect(meetings.overflowed).toBe(true);
  });
});

describe('countPlain', () => {
  it('counts plain rows as reading them would, and leaves every other row to be read', () => {
    const day = fc.integer({ min: 1, max: 28 }).map((n) => `2026-01-${String(n).padStart(2, '0')}`);
    const time = fc.oneof(
      { weight: 9, arbitrary: day },
      { weight: 1, arbitrary: fc.constantFrom('soon', '') },
    );
    const value = fc.oneof(
      { weight: 9, arbitrary: fc.integer({ min: -9, max: 9 }).map(String) },
      { weight: 1, arbitrary: fc.constantFrom('', 'x', '5 %', '1,5') },
    );
    const row = fc
      .array(fc.constant(''), { maxLength: 1 })
      .chain((more) => fc.tuple(time, value, value).map((cells) => [...cells, ...more]));
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 40 }), (rows) => {
        const layout: FileLayout = {
          ...LAYOUT,
          width: 3,
          headings: ['Time', 'A', 'B'],
          blocks: [{ timeColumns: [0], timeParts: ['time'], valueColumns: [1, 2] }],
        };
        const options = {
          zone: 'UTC',
          latest: Infinity,
          targets: null,
          take: () => undefined,
          tell: () => undefined,
        };
        const [all, quick] = [0, 1].map(() => rowReader(layout, { ...options, meetings: watchOrder() }));
        rows.forEach((cells, i) => {
          all.read(cells, i);
          if (!quick.countPlain(cells, i)) quick.read(cells, i);
        });
        expect(quick.balance).toEqual(all.balance);
        expect(quick.feeds.map(({ samples }) => samples)).toEqual(all.feeds.map(({ samples }) => samples));
      }),
    );
  });
});
