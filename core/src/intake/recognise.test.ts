import fc from 'fast-check';
import { recognise, recogniseRows, MAX_COLUMNS } from './recognise';
import { readRows } from './separator';
import { jsonRows, jsonTable } from './jsonTable';
import { refuseOtherFiles, textKind } from './fileKind';
import type { LayoutCorrection, Recognised } from './layout';

const text = (...lines: string[]): string => `${lines.join('\n')}\n`;
const partsOf = ({ columns }: Recognised): string[] => columns.map(({ part }) => part);
const asksOf = (found: Recognised): string[] => found.questions.map(({ about }) => about);
const names = ({ layout }: Recognised): string[] => layout.nameColumns.map((i) => layout.headings[i]);

describe('recognise', () => {
  it('recognises a file with semicolons, decimal commas and units in its headings', () => {
    const found = recognise(
      text('Zeit;Durchfluss (m³/h);Bemerkung', '19.11.2026 06:00;1,5;gut', '19.11.2026 06:15;2,25;'),
    );
    expect(found.layout).toMatchObject({
      separator: ';',
      decimal: ',',
      preambleRows: 0,
      headingRows: 1,
      timeFormat: 'day-first',
      blocks: [{ timeColumns: [0], timeParts: ['time'], valueColumns: [1] }],
    });
    expect(found.columns[1]).toMatchObject({
      heading: 'Durchfluss',
      unit: 'm³/h',
      part: 'value',
      numbers: 2,
    });
    expect(found.columns[2]).toMatchObject({ part: 'leftOut', note: 'not numbers', words: 1, blank: 1 });
  });

  it('keeps to what a person has corrected', () => {
    expect(recognise('a,b\n2026-01-01,5\n', { headingRows: 0 }).layout.headingRows).toBe(0);
    const two = text('a,b,c', '2026-01-01,2026-01-02,5', '2026-01-02,2026-01-03,6');
    expect(partsOf(recognise(two))).toEqual(['time', 'leftOut', 'value']);
    expect(recognise(two).columns[1].note).toBe('read as time, does not date the rows');
    const corrected = recognise(two, { parts: { 0: 'leftOut', 1: 'time' } });
    expect(corrected.layout.blocks[0].timeColumns).toEqual([1]);
  });

  it.each<[string, string, LayoutCorrection, string[]]>([
    ['no time', text('a,b', 'x,1', 'y,2'), {}, ['time']],
    ['no numbers', text('t,b', '2026-01-01,x', '2026-01-02,y'), {}, ['values']],
    ['headings without rows', text('t,b'), {}, ['rows']],
    ['dates of either order', text('t,v', '03/04/2026,1', '05/06/2026,2'), {}, ['dayOrMonth']],
    ['a chosen order', text('t,v', '03/04/2026,1', '05/06/2026,2'), { timeFormat: 'day-first' }, []],
    [
      'years of two digits',
      text('t,v', '25.12.26,1', '26.12.26,2'),
      { timeFormat: 'day-first' },
      ['century'],
    ],
    ['a fixed time', text('a,b', 'x,1', 'y,2'), { fixedTime: 0 }, []],
    ['more cells than headings', text('t,a', '2026-01-01,1,2,3', '2026-01-02,1,2,3'), {}, ['headings']],
  ])('asks about %s where it must', (_, file, correct, about) => {
    expect(asksOf(recognise(file, correct))).toEqual(about);
  });

  it('refuses only a file of no rows, and more columns than anybody can map', () => {
    expect(() => recognise('\n\n')).toThrow('no rows');
    const row = ['2026-01-01', ...Array<string>(MAX_COLUMNS).fill('1')];
    expect(() => recogniseRows([row, row], ',')).toThrow('10001 columns; at most 10,000');
  });

  it('takes names with values above the table for notes, and a heading over columns for a heading', () => {
    const table = ['Time;Gas;Steam', '2026-11-19 06:00;1,5;2,5', '2026-11-19 07:00;1,7;0,9'];
    const noted = recognise(text('Hollowmere Linen;Export', 'Site;Quayside', '', ...table));
    expect(noted.layout).toMatchObject({
      preambleRows: 2,
      headingRows: 1,
      headings: ['Time', 'Gas', 'Steam'],
    });
    const merged = recognise(text('Time;Dryer 1;', ';Gas;Steam', ...table.slice(1)));
    expect(merged.layout).toMatchObject({ preambleRows: 0, headingRows: 2 });
    expect(merged.columns[1].heading).toContain('Dryer 1');
  });

  it('reads merged headings over blocks that stand side by side with times of their own', () => {
    const found = recogniseRows(
      [
        ['Dryer 1', '', '', 'Dryer 2', '', ''],
        ['Time', 'Gas', 'Weight', 'Time', 'Gas', 'Weight'],
        ['', '(kWh)', '(kg)', '', '(kWh)', '(kg)'],
        ['2026-11-19 06:00', '1', '10', '2026-11-19 06:00', '2', '20'],
        ['2026-11-19 07:00', '1', '11', '2026-11-19 07:00', '2', '21'],
      ],
      null,
    );
    expect(found.layout.headingRows).toBe(3);
    expect(found.layout.blocks.map(({ timeColumns, valueColumns }) => [timeColumns, valueColumns])).toEqual([
      [[0], [1, 2]],
      [[3], [4, 5]],
    ]);
    expect(found.columns[4]).toMatchObject({ heading: 'Dryer 2 Gas', unit: 'kWh' });
  });

  it('proposes the columns that make rows unique with the time as names, under any heading', () => {
    const rows = ['a', 'b'].flatMap((x) => ['p', 'q'].map((y) => [x, y]));
    const file = text(
      'когда,где,что,сколько',
      ...['2026-01-01', '2026-01-02', '2026-01-03'].flatMap((day) =>
        rows.map(([x, y]) => `${day},${x},${y},5`),
      ),
    );
    expect(names(recognise(file))).toEqual(['где', 'что']);
    const remarks = text('time,flow,remark', '2026-01-01,1,ok', '2026-01-02,2,ok', '2026-01-03,2,ok');
    expect(names(recognise(remarks))).toEqual([]);
  });

  it('carries a date down that is written once for a group', () => {
    const file = text('date;line;kg', '2026-01-01;A;5', ';B;6', '2026-01-02;A;7', ';B;8');
    const found = recognise(file);
    expect([names(found), found.layout.carriedDown]).toEqual([['line'], [0]]);
  });

  it('does not lose what names the series to a spoilt row', () => {
    const rows = Array.from({ length: 12 }, (_, i) =>
      ['p', 'q'].map((name) => `2026-01-${String(i + 1).padStart(2, '0')};${name};${i}`),
    ).flat();
    const file = text('Zeit;Messgröße;Wert', ...rows, '2026-01-03;p;offline');
    expect(names(recognise(file))).toEqual(['Messgröße']);
  });

  it('names series of unique times where their values lie apart', () => {
    const file = text(
      'wann,wo,wert',
      ...Array.from(
        { length: 20 },
        (_, i) => `2026-01-${String(i + 1).padStart(2, '0')},${i % 2 ? 'x' : 'y'},${i % 2 ? 500 + i : i}`,
      ),
    );
    expect(names(recognise(file))).toEqual(['wo']);
  });

  it('takes a bare number for a time only where no written date stands or its heading says so', () => {
    const formatOf = (heading: string, a: string, b: string): string => {
      const found = recognise(text(`${heading},v`, `${a},1`, `${b},2`));
      return found.layout.blocks[0].timeColumns.length === 0 ? 'none' : found.layout.timeFormat;
    };
    expect(formatOf('time', '1763534400', '1763534460')).toBe('epoch-seconds');
    expect(formatOf('ts', '1763534400000', '1763534460000')).toBe('epoch-milliseconds');
    expect(formatOf('Datum', '45980.25', '45980.5')).toBe('serial');
    expect(formatOf('bytes', '1763534400', '1763534460')).toBe('none');
    const beside = recognise(text('time,bytes', '2026-01-01,1763534400', '2026-01-02,1763534460'));
    expect(partsOf(beside)).toEqual(['time', 'value']);
  });

  it('judges a column by all rows, not by the first', () => {
    const rows = Array.from({ length: 400 }, (_, i) => `${1000 + i}-01-01,${i < 300 ? '' : i}`);
    expect(recognise(text('t,late', ...rows)).columns[1]).toMatchObject({
      part: 'value',
      numbers: 100,
      blank: 300,
    });
    const never = recognise(text('t,never,v', ...rows.slice(0, 9).map((row) => `${row},1`)));
    expect(never.columns[1].note).toBe('blank so far');
  });
});

describe('files that are no tables', () => {
  it('are told apart by how they begin', () => {
    expect(textKind('{"t":1,"v":2}\n{"t":2}\n')).toBe('ndjson');
    expect(textKind('[{"t":1,"v":2}]')).toBe('json');
    expect(textKind('{\n "t": [1]\n}')).toBe('json');
    expect(textKind('# TYPE flow gauge\nflow 1 2\n# EOF\n')).toBe('openmetrics');
    expect(textKind('flow{line="1"} 1\nflow{line="2"} 2\n')).toBe('openmetrics');
    expect(textKind('t,v\n1,2\n')).toBe('table');
    expect(textKind('{not json}\n')).toBe('table');
    expect(() => textKind('<html><body>')).toThrow('web page');
  });

  it('are named where they hold no table', () => {
    expect(() => refuseOtherFiles(new Uint8Array())).toThrow('empty (0 bytes)');
    expect(() => refuseOtherFiles(Uint8Array.from([0xff, 0xd8, 0xff]))).toThrow('a picture (JPEG)');
    expect(() => refuseOtherFiles(new TextEncoder().encode('%PDF-1.7'))).toThrow('a PDF document');
  });

  it('become tables: keys are headings, late ones get a column', () => {
    const table = jsonTable();
    const cells = [
      { time: 't1', flow: { mean: 1.5 }, note: null },
      { time: 't2', temp: [60, 61] },
    ].map(table.cellsOf);
    expect(table.headings).toEqual(['time', 'flow.mean', 'note', 'temp.0', 'temp.1']);
    expect(cells[0]).toEqual(['t1', '1.5', '']);
    expect(cells[1]).toEqual(['t2', '', '', '60', '61']);
    expect(() => table.cellsOf([1])).toThrow('not a JSON object');
  });

  it('finds the table inside a JSON document', () => {
    expect(jsonRows({ meta: {}, data: [{ a: 1 }] })).toEqual({ kind: 'objects', rows: [{ a: 1 }] });
    expect(jsonRows({ t: [1, 2], v: [3, null] })).toEqual({
      kind: 'cells',
      headings: ['t', 'v'],
      rows: [
        ['1', '3'],
        ['2', ''],
      ],
    });
    expect(
      jsonRows([
        ['t', 'v'],
        [1, 2],
      ]),
    ).toMatchObject({
      headings: null,
      rows: [
        ['t', 'v'],
        ['1', '2'],
      ],
    });
    expect(
      jsonRows({
        results: [
          {
            columns: ['t', 'v'],
            values: [
              [1, 2],
              [2, 3],
            ],
          },
        ],
      }),
    ).toMatchObject({
      headings: ['t', 'v'],
      rows: [
        ['1', '2'],
        ['2', '3'],
      ],
    });
    expect(() => jsonRows({ a: 1 })).toThrow('holds no table');
  });
});

describe('readRows', () => {
  it('leaves quoted separators and line ends inside cells alone (RFC 4180, section 2, rules 5 to 7)', () => {
    expect(readRows('"a,1","b ""x""","c\r\nd"\r\n1,2,3', ',')).toEqual([
      ['a,1', 'b "x"', 'c\r\nd'],
      ['1', '2', '3'],
    ]);
  });
});

describe('recogniseRows', () => {
  it('never throws for rows that a person can see and set right', () => {
    const cell = fc.oneof(
      fc.constantFrom('', 'x', '2026-01-01', '12', '1,5', 'Total', '06:40', '#REF!'),
      fc.string({ maxLength: 8 }),
    );
    fc.assert(
      fc.property(
        fc.array(fc.array(cell, { minLength: 1, maxLength: 5 }), { minLength: 1, maxLength: 12 }),
        (rows) => {
          const { layout, columns } = recogniseRows(rows, ',');
          expect(columns).toHaveLength(layout.width);
        },
      ),
    );
  });
});
