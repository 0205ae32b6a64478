import { readFileSync } from 'node:fs';
import path from 'node:path';
import ExcelJS from 'exceljs';
import { parse } from 'csv-parse/sync';
import { read, utils } from '@e965/xlsx';
import fc from 'fast-check';
import { decodeColumns } from '@vivid-beacon/core';
import {
  leftOutLines,
  readSignedNumber,
  unexplained,
  type LayoutCorrection,
  type ReportedLine,
} from '@vivid-beacon/core/src/intakeFiles';
import { fileOf, openAny } from './fixtures/takeAll';
import { scanFile } from './scanFile';
import { readFile } from './readFile';

const MODULES = path.resolve(__dirname, '../../../node_modules');

async function allRows(name: string, content: string | Uint8Array): Promise<string[][]> {
  const source = await openAny(fileOf(name, content));
  const rows: string[][] = [];
  for await (const batch of source.rows(() => undefined)) rows.push(...batch.rows.map((cells) => [...cells]));
  return rows;
}

describe('a second reader by another author', () => {
  it.each(['seattle-weather.csv', 'birdstrikes.csv', 'stocks.csv', 'weather.csv'])(
    'cuts %s into the same cells (RFC 4180; csv-parse)',
    async (file) => {
      const content = new Uint8Array(readFileSync(path.join(MODULES, 'vega-datasets/data', file)));
      expect(await allRows(file, content)).toEqual(parse(Buffer.from(content)));
    },
  );

  it('cuts lines that end in different ways, and a last line without an end', async () => {
    const long = Array.from({ length: 30_000 }, (_, i) => `${i},x`).join('\r\n');
    const rows = await allRows('mixed.csv', `a,b\r\n1,2\n3,4\r\n${long}\n5,6`);
    expect(rows).toHaveLength(30_004);
    expect(rows[rows.length - 1]).toEqual(['5', '6']);
    const mac = 'a,b\r1,2\r3,4';
    const wanted = [
      ['a', 'b'],
      ['1', '2'],
      ['3', '4'],
    ];
    expect(await allRows('mac.csv', mac)).toEqual(wanted);
    expect((await openAny(fileOf('mac.csv', mac))).head).toEqual(wanted);
  });

  it('cuts any quoted table into the same cells (RFC 4180, section 2; csv-parse)', async () => {
    const cell = fc.string({
      unit: fc.constantFrom('a', ',', ';', '"', '\n', ' ', '1'),
      minLength: 0,
      maxLength: 6,
    });
    const table = fc.array(fc.tuple(cell, cell, cell), { minLength: 2, maxLength: 12 });
    await fc.assert(
      fc.asyncProperty(table, async (rows) => {
        const quote = (text: string): string => `"${text.replace(/"/g, '""')}"`;
        const text = `x,y,z\n${rows.map((cells) => cells.map(quote).join(',')).join('\n')}\n`;
        const wanted = (parse(text) as string[][]).filter((cells) =>
          cells.some((each) => each.trim() !== ''),
        );
        const source = await openAny(fileOf('q.csv', text), { separator: ',' });
        const got: string[][] = [];
        for await (const batch of source.rows(() => undefined))
          got.push(...batch.rows.map((cells) => [...cells]));
        expect(got).toEqual(wanted);
      }),
      { numRuns: 60 },
    );
  });

  it('reads the same text from a spreadsheet (exceljs; another spreadsheet library)', async () => {
    const book = new ExcelJS.Workbook();
    const sheet = book.addWorksheet('Data');
    sheet.addRow(['Time', 'Flow', 'Note']);
    for (let i = 0; i < 20; i++)
      sheet.addRow([new Date(Date.UTC(2026, 0, 1, i)), i / 8, i % 3 === 0 ? null : `n${i}`]);
    const bytes = new Uint8Array(await book.xlsx.writeBuffer());
    const other = read(bytes, { type: 'array', cellDates: true, UTC: true });
    const wanted = utils
      .sheet_to_json<(string | number | Date | null)[]>(other.Sheets.Data, {
        header: 1,
        defval: null,
        UTC: true,
      })
      .map((row) =>
        row.map((value) =>
          value instanceof Date ? value.toISOString().slice(0, 19).replace('T', ' ') : String(value ?? ''),
        ),
      );
    expect((await allRows('d.xlsx', bytes)).map((row) => [...row, ''].slice(0, 3))).toEqual(wanted);
  });
});

describe('a look at a file larger than its first part', () => {
  const DAY = 86_400_000;
  const rows = (n: number, make: (day: string, i: number) => string): string =>
    Array.from({ length: n }, (_, i) =>
      make(new Date(Date.UTC(1990, 0, 1) + i * DAY).toISOString().slice(0, 10), i),
    ).join('\n');
  const lookOf = async (text: string, correct: LayoutCorrection = {}) =>
    scanFile(await openAny(fileOf('large.csv', text)), {
      correct,
      zone: 'UTC',
      latest: Date.UTC(2100, 0, 1),
      progress: () => undefined,
    });

  it('counts every row, plain or not, as one that is read whole', async () => {
    const odd = (i: number): string => (i % 997 === 0 ? 'off' : i % 501 === 0 ? '' : String(i));
    const look = await lookOf(`date,a,b\n${rows(20_000, (day, i) => `${day},${odd(i)},${i / 4}`)}\n`);
    const words = Array.from({ length: 20_000 }, (_, i) => odd(i));
    expect(look.balance).toMatchObject({
      lines: 20_001,
      taken: 20_000,
      values: {
        refused: words.filter((each) => each === 'off').length,
        blank: words.filter((each) => each === '').length,
        taken: 40_000 - words.filter((each) => each === 'off' || each === '').length,
      },
    });
    expect(look.recognised.columns[1]).toMatchObject({ part: 'value', words: 21 });
    expect(look.recognised.questions).toEqual([]);
    expect(look.inOrder).toBe(true);
  });

  it('finds values that meet far apart, and a column that begins late', async () => {
    const text = `date,a,late\n${rows(20_000, (day, i) => `${day},${i},${i < 15_000 ? '' : i}`)}\n1990-01-02,77,\n`;
    const look = await lookOf(text);
    expect(look.recognised.columns[2].part).toBe('value');
    expect(look.balance.values).toMatchObject({ taken: 25_000, met: 1 });
    expect(look.told.filter(({ kind }) => kind === 'met')).toMatchObject([
      { line: 20_002, reason: 'line 3 has 1 for the same series and time' },
    ]);
  });

  it('counts events as reading them does', async () => {
    const text = 'opened,kind\n2026-01-01 06:00,jam\n2026-01-01 09:00,jam\n2026-01-02 06:00,leak\n';
    const { balance } = await lookOf(text, { events: { per: 'day', of: 'count' } });
    expect(balance).toMatchObject({ taken: 3, repeated: 0, values: { taken: 2, met: 1 } });
  });
});

/** Everything that was stored or reported of a file. */
async function account(text: string) {
  const look = await scanFile(await openAny(fileOf('any.csv', text), { separator: ';' }), {
    correct: {},
    zone: 'UTC',
    latest: Date.UTC(2030, 0, 1),
    progress: () => undefined,
  });
  const told: ReportedLine[] = [...look.told];
  const numbers = new Set<string>();
  const targets = Object.fromEntries(
    look.feeds.map(({ key, index }) => [key, { metricId: String(index), earliest: null, shiftMs: 0 }]),
  );
  try {
    await readFile(
      await openAny(fileOf('any.csv', text), { separator: ';' }),
      { layout: look.recognised.layout, targets, zone: 'UTC', latest: Date.UTC(2030, 0, 1), inOrder: false },
      async (bytes) => {
        const { head, columns } = decodeColumns<{ metricIds: string[]; told: ReportedLine[] }>(bytes.buffer);
        told.push(...head.told);
        head.metricIds.forEach((id, i) => columns.get(`v ${i}`)!.forEach((v) => numbers.add(`${id} ${v}`)));
      },
      () => undefined,
    );
  } catch {
    // No value could be read; the scan has said why.
  }
  return { look, told, numbers };
}

describe('the balance of any file', () => {
  const time = fc.constantFrom(
    '2026-01-01',
    '2026-01-02 06:00',
    '2026-01-03',
    '03.02.2026',
    '2026',
    'soon',
    '',
    'Total',
  );
  const value = fc.oneof(
    fc.constantFrom('', 'x', '-', 'n/a', '#REF!', '12 %', '(3)', '1:30', '5 kg'),
    fc.integer({ min: -99, max: 99 }).map(String),
    fc.float({ noNaN: true, noDefaultInfinity: true, min: -5, max: 5 }).map((n) => n.toFixed(2)),
  );
  const name = fc.constantFrom('a', 'b', '');
  const row = fc.oneof(
    { weight: 8, arbitrary: fc.tuple(time, name, value, value).map((cells) => cells.join(';')) },
    { weight: 1, arbitrary: fc.constantFrom('', 'note', 't;n;p;q', '2026-01-05;a;1;2;3', '2026-01-06;a') },
  );

  it('adds up, and every number of the file is stored, refused or named', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(row, { minLength: 1, maxLength: 40 }),
        fc.constantFrom('t;n;p;q\n', '', 'Report\n\nt;n;p;q\n'),
        async (rows, head) => {
          const text = `${head}${rows.join('\n')}\n`;
          if (text.trim() === '') return;
          const { look, told, numbers } = await account(text);
          const { balance, recognised } = look;
          const lines = text.split('\n').slice(0, -1);
          expect(unexplained(balance)).toBe(0);
          expect(balance.lines).toBe(lines.length);
          expect(balance.taken + balance.refused + balance.repeated + leftOutLines(balance)).toBe(
            lines.length,
          );
          const toldOf = new Set(told.map(({ line }) => line));
          const { layout } = recognised;
          lines.forEach((line, i) => {
            line.split(';').forEach((cell, column) => {
              const number = readSignedNumber(cell, layout.decimal);
              // Columns that are left out are named as such; the others must account for the cell.
              if (!number || recognised.columns[column]?.part !== 'value' || toldOf.has(i + 1)) return;
              const stored = [...numbers].some(
                (each) => each.endsWith(` ${number.value}`) || Number(each.split(' ')[1]) === number.value,
              );
              expect(stored || layout.durations.includes(column) ? '' : `line ${i + 1}, ${cell}: lost`).toBe(
                '',
              );
            });
          });
        },
      ),
      { numRuns: 150 },
    );
  });
});
