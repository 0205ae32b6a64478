import { read, utils, type CellObject, type WorkSheet } from '@e965/xlsx';
import fc from 'fast-check';
import { HOUR_MS } from '@vivid-beacon/core';
import { makeReadout } from '@vivid-beacon/core/src/boards';
import { sheetOf } from './endpoints';
import { xlsxOf, type NumberSheet } from './sheets';
import { tableToNdjson } from './tableToNdjson';

/* Written by one library, read again by another. */

const AT = Date.UTC(2026, 6, 1, 10, 30);
const SHEET: NumberSheet = {
  name: 'Gas: dryers [all] / a name that is far too long for the name of a sheet',
  zone: 'Europe/London',
  table: {
    columns: [
      { name: 'From', unit: '', isTime: true },
      { name: 'Name', unit: '' },
      { name: 'Gas used', unit: 'kWh' },
    ],
    rows: [
      [AT, '=HYPERLINK("http://x")', 1.5],
      [AT + HOUR_MS, '+44', null],
      [null, '@SUM(A1)', -1e-9],
    ],
  },
  about: [
    ['Window', 'the last 7 days'],
    ['Least coverage', '98.0 %'],
  ],
};

const readBack = async (sheets: readonly NumberSheet[]) =>
  read(await xlsxOf('Board', sheets), { cellDates: true });
const cell = (sheet: WorkSheet, at: string): CellObject => sheet[at] as CellObject;

describe('a workbook of readouts', () => {
  it('has typed cells, units under the names, moments on the clock of the site, and text that stays text', async () => {
    const book = await readBack([SHEET]);
    const [about, own] = book.SheetNames.map((name) => book.Sheets[name]);
    expect(cell(own, 'C1').v).toBe('Gas used');
    expect([cell(own, 'A2').v, cell(own, 'C2').v]).toEqual(['Europe/London', 'kWh']);
    // Half past eleven in London.
    expect((cell(own, 'A3').v as Date).toISOString()).toBe('2026-07-01T11:30:00.000Z');
    expect(cell(own, 'C3')).toMatchObject({ t: 'n', v: 1.5 });
    expect(own.C4).toBeUndefined();
    expect(cell(own, 'C5').v).toBe(-1e-9);
    for (const [at, text] of [
      ['B3', '=HYPERLINK("http://x")'],
      ['B4', '+44'],
      ['B5', '@SUM(A1)'],
    ]) {
      expect(cell(own, at)).toMatchObject({ t: 's', v: text });
      expect(cell(own, at).f).toBeUndefined();
    }
    const words = utils.sheet_to_json<string[]>(about, { header: 1 });
    expect(words).toContainEqual(['Window', 'the last 7 days']);
    expect(words).toContainEqual(['Sheet', book.SheetNames[1]]);
  });

  it('takes any names, each once', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.string({ maxLength: 60 }), { minLength: 1, maxLength: 6 }),
        async (names) => {
          const { SheetNames } = await readBack([...names, ...names].map((name) => ({ ...SHEET, name })));
          expect(SheetNames).toHaveLength(2 * names.length + 1);
          expect(new Set(SheetNames.map((name) => name.toLowerCase())).size).toBe(SheetNames.length);
          for (const name of SheetNames) expect(name.length).toBeLessThanOrEqual(31);
        },
      ),
      { numRuns: 20 },
    );
  });
});

it('holds no more than a million cells, together with the sheets before', () => {
  const numbers = {
    readout: makeReadout('r', 'figure'),
    title: 'Large',
    about: [],
    data: { problem: { title: 'None', text: 'Nothing.' } },
  };
  expect(sheetOf(numbers, 999_999).name).toBe('Large');
  expect(() => sheetOf(numbers, 1_000_000)).toThrow(
    /With "Large" this workbook would have more than 1,000,000/,
  );
});

describe('rows as NDJSON', () => {
  it('are an object a line, with the offset of the site and missing values as null', () => {
    const lines = tableToNdjson(SHEET.table, SHEET.zone).trimEnd().split('\n');
    expect(lines.map((line) => JSON.parse(line) as unknown)).toEqual([
      { From: '2026-07-01T11:30:00.000+01:00', Name: '=HYPERLINK("http://x")', 'Gas used (kWh)': 1.5 },
      { From: '2026-07-01T12:30:00.000+01:00', Name: '+44', 'Gas used (kWh)': null },
      { From: null, Name: '@SUM(A1)', 'Gas used (kWh)': -1e-9 },
    ]);
    const twice = { columns: [SHEET.table.columns[2], SHEET.table.columns[2]], rows: [[1, 2]] };
    expect(tableToNdjson(twice, 'UTC')).toBe('{"Gas used (kWh)":1,"Gas used (kWh) 2":2}\n');
  });
});
