import { readRows, recognise, recogniseRows, MOST_COLUMNS } from './recognise';
import { ndjsonTable } from './ndjsonTable';
import { textKind } from './fileKind';

const block = (timeColumn: number, valueColumns: number[], clockColumn: number | null = null) => ({
  timeColumn,
  clockColumn,
  valueColumns,
});

describe('recognise', () => {
  it('recognises a file with semicolons, decimal commas and units in its headings', () => {
    const text = 'Zeit;Durchfluss (m³/h);Bemerkung\n19.11.2026 06:00;1,5;gut\n19.11.2026 06:15;2,25;\n';
    const found = recognise(text);
    expect(found.layout).toEqual({
      separator: ';',
      decimal: ',',
      preambleRows: 0,
      headingRows: 1,
      shape: 'columns',
      blocks: [block(0, [1])],
      nameColumns: [],
      unitColumn: null,
      timeFormat: 'day-first',
      repeatedHour: 'inOrder',
    });
    expect(found.columns[1]).toEqual({ index: 1, heading: 'Durchfluss', unit: 'm³/h', numeric: true });
    expect(found.columns[2].numeric).toBe(false);
    expect(found.stepMs).toBe(900_000);
  });

  it('recognises a file without headings', () => {
    expect(recognise('2026-01-01,5\n2026-01-02,6\n').layout.headingRows).toBe(0);
  });

  it('keeps to what a person has corrected', () => {
    expect(recognise('a,b\n2026-01-01,5\n', { headingRows: 0 }).layout.headingRows).toBe(0);
    const two = recognise('a,b,c\n2026-01-01,2026-01-02,5\n', { timeColumn: 1 });
    expect(two.layout.blocks[0].timeColumn).toBe(1);
  });

  it('says what is missing', () => {
    expect(() => recognise('a,b\n1,2\n')).toThrow('No column holds times');
    expect(() => recognise('t,b\n2026-01-01,x\n2026-01-02,y\n')).toThrow('No column holds numbers');
    expect(() => recognise('\n\n')).toThrow('no rows');
  });

  it('passes over a preamble and finds the headings below it', () => {
    const text = [
      'Energy report',
      'Site:;Quayside',
      'Printed 24.11.2026',
      '',
      'Time;Gas [kWh];Steam [t/h]',
      '19.11.2026 06:00;1,5;-',
      '19.11.2026 07:00;1,7;0,9',
      'Total;3,2;0,9',
    ].join('\n');
    const found = recognise(text);
    expect(found.layout).toMatchObject({
      preambleRows: 3,
      headingRows: 1,
      decimal: ',',
      timeFormat: 'day-first',
    });
    expect(found.columns.slice(1).map(({ heading, unit }) => [heading, unit])).toEqual([
      ['Gas', 'kWh'],
      ['Steam', 't/h'],
    ]);
  });

  it('takes names with values above the table for notes, and a heading over columns for a heading', () => {
    const table = ['Time;Gas;Steam', '2026-11-19 06:00;1,5;2,5', '2026-11-19 07:00;1,7;0,9'];
    const noted = recognise(['Hollowmere Linen;Export', 'Site;Quayside', '', ...table].join('\n'));
    expect(noted.layout).toMatchObject({ preambleRows: 2, headingRows: 1 });
    expect(noted.columns.map(({ heading }) => heading)).toEqual(['Time', 'Gas', 'Steam']);
    const merged = recognise(['Time;Dryer 1;', ';Gas;Steam', ...table.slice(1)].join('\n'));
    expect(merged.layout).toMatchObject({ preambleRows: 0, headingRows: 2 });
    expect(merged.columns[1].heading).toContain('Dryer 1');
  });

  it('reads merged headings over blocks that stand side by side with times of their own', () => {
    const rows = [
      ['Dryer 1', '', '', 'Dryer 2', '', ''],
      ['Time', 'Gas', 'Weight', 'Time', 'Gas', 'Weight'],
      ['', '(kWh)', '(kg)', '', '(kWh)', '(kg)'],
      ['2026-11-19 06:00', '1', '10', '2026-11-19 06:00', '2', '20'],
      ['2026-11-19 07:00', '1', '11', '2026-11-19 07:00', '2', '21'],
    ];
    const found = recogniseRows(rows, null);
    expect(found.layout).toMatchObject({
      headingRows: 3,
      shape: 'columns',
      blocks: [block(0, [1, 2]), block(3, [4, 5])],
    });
    expect(found.columns[4]).toMatchObject({ heading: 'Dryer 2 Gas', unit: 'kWh' });
    expect(found.columns[2]).toMatchObject({ heading: 'Dryer 1 Weight', unit: 'kg' });
  });

  it('tells one row per sample from one column per metric', () => {
    const text = [
      'timestamp,tag,value,unit',
      '2026-11-19T06:00:00Z,Flow,1.5,m3/h',
      '2026-11-19T06:00:00Z,Temp,60,°C',
      '2026-11-19T06:01:00Z,Flow,1.6,m3/h',
    ].join('\n');
    const found = recognise(text);
    expect(found.layout).toMatchObject({ shape: 'samples', nameColumns: [1], unitColumn: 3 });
    expect(found.names).toEqual([
      { name: 'Flow', unit: 'm3/h' },
      { name: 'Temp', unit: '°C' },
    ]);
    expect(found.stepMs).toBe(60_000);
    expect(recognise('time,flow,remark\n2026-11-19 06:00,1,ok\n2026-11-19 06:01,2,ok\n').layout.shape).toBe(
      'columns',
    );
  });

  it('joins a column of dates with a column of times of day', () => {
    const found = recognise('Date,Clock,Flow\n19/11/2026,06:00,1\n20/11/2026,06:30,2\n');
    expect(found.layout.blocks).toEqual([block(0, [2], 1)]);
  });

  it('knows epoch seconds, milliseconds and spreadsheet day numbers', () => {
    const formatOf = (a: string, b: string): string => recognise(`t,v\n${a},1\n${b},2\n`).layout.timeFormat;
    expect(formatOf('1763534400', '1763534460')).toBe('epoch-seconds');
    expect(formatOf('1763534400000', '1763534460000')).toBe('epoch-milliseconds');
    expect(formatOf('45980.25', '45980.5')).toBe('serial');
  });

  it('does not decide between day-first and month-first for a person', () => {
    expect(recognise('t,v\n03/04/2026,1\n05/06/2026,2\n').timeFormats).toEqual(['day-first', 'month-first']);
  });

  it('tells a decimal comma from a separator', () => {
    expect(recognise('t;v\n2026-01-01;1,5\n2026-01-02;2,5\n').layout).toMatchObject({
      separator: ';',
      decimal: ',',
    });
    expect(recognise('t\tv\n2026-01-01\t1.234,5\n2026-01-02\t2,5\n').layout).toMatchObject({ decimal: ',' });
  });

  it('refuses more columns than anybody can map', () => {
    const row = ['2026-01-01', ...Array<string>(MOST_COLUMNS).fill('1')];
    expect(() => recogniseRows([row, row], ',')).toThrow('10001 columns; at most 10,000');
    const most = row.slice(0, MOST_COLUMNS);
    expect(recogniseRows([most, most], ',').columns).toHaveLength(MOST_COLUMNS);
  });
});

describe('files that are no tables', () => {
  it('are told apart by how they begin', () => {
    expect(textKind('{"t":1,"v":2}\n{"t":2}\n')).toBe('ndjson');
    expect(textKind('# TYPE flow gauge\nflow 1 2\n# EOF\n')).toBe('openmetrics');
    expect(textKind('t,v\n1,2\n')).toBe('table');
    expect(textKind('{not json}\n')).toBe('table');
  });

  it('become tables: the keys of JSON lines are headings', () => {
    const lines = [
      '{"time":"2026-11-19T06:00:00Z","flow":{"mean":1.5},"note":null}',
      '{"time":"2026-11-19T06:01:00Z","temp":60}',
    ];
    const table = ndjsonTable(lines);
    expect(table.headings).toEqual(['time', 'flow.mean', 'note', 'temp']);
    expect(table.cellsOf(lines[1])).toEqual(['2026-11-19T06:01:00Z', '', '', '60']);
    expect(() => table.cellsOf('[1]')).toThrow('not a JSON object');
    expect(() => ndjsonTable(['[1]'])).toThrow('No line holds a JSON object');
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
