import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import pino from 'pino';
import { Counter, Gauge, Histogram, Registry } from 'prom-client';
import { CFB, utils, write } from '@e965/xlsx';
import { gzipSync } from 'fflate';
import type { Careful } from './expectation';

/** A file that a spreadsheet, client or logging library writes. */
export interface WrittenFile extends Careful {
  readonly name: string;
  readonly write: () => Promise<Uint8Array | string>;
}

const DAY = 86_400_000;
const FIRST = Date.UTC(2026, 10, 2);
const day = (i: number): Date => new Date(FIRST + i * DAY);

async function book(fill: (sheet: ExcelJS.Worksheet, book: ExcelJS.Workbook) => void): Promise<Uint8Array> {
  const made = new ExcelJS.Workbook();
  fill(made.addWorksheet('Readings'), made);
  return new Uint8Array(await made.xlsx.writeBuffer());
}

const TABLE = [
  ['Time', 'Gas (kWh)', 'Steam'],
  ...Array.from({ length: 5 }, (_, i) => [day(i), 10.5 + i, i === 2 ? null : 100 + i]),
];
const takesTable: Careful['takes'] = {
  series: 2,
  samples: 9,
  spots: [
    ['Gas', '2026-11-04T00:00:00Z', 12.5],
    ['Steam', '2026-11-06T00:00:00Z', 104],
  ],
};

async function registry(type: 'openmetrics' | 'plain'): Promise<string> {
  const kept = new Registry();
  if (type === 'openmetrics') kept.setContentType(Registry.OPENMETRICS_CONTENT_TYPE as never);
  const requests = new Counter({
    name: 'requests_total',
    help: 'Requests',
    labelNames: ['line'],
    registers: [kept],
  });
  requests.inc({ line: '1' }, 5);
  requests.inc({ line: '2' }, 7);
  new Gauge({ name: 'requests', help: 'Open requests', registers: [kept] }).set(3);
  const seconds = new Histogram({ name: 'wash_seconds', help: 'Time', buckets: [1, 2], registers: [kept] });
  seconds.observe(1.5);
  return kept.metrics();
}

export const WRITTEN_FILES: readonly WrittenFile[] = [
  {
    name: 'exceljs, dates and a gap',
    write: () => book((sheet) => TABLE.forEach((row) => sheet.addRow(row))),
    takes: takesTable,
  },
  {
    name: 'exceljs, dates counted from 1904',
    write: () =>
      book((sheet, made) => {
        made.properties.date1904 = true;
        TABLE.forEach((row) => sheet.addRow(row));
      }),
    takes: takesTable,
  },
  ...([false, true] as const).map((from1904): WrittenFile => ({
    name: `exceljs, date and time of day in two cells${from1904 ? ', from 1904' : ''}`,
    write: () =>
      book((sheet, made) => {
        made.properties.date1904 = from1904;
        sheet.addRow(['Day', 'Clock', 'kW']);
        for (let i = 0; i < 3; i++) {
          const clock = from1904 ? Date.UTC(1904, 0, 1, 6, 40 + i) : Date.UTC(1899, 11, 30, 6, 40 + i);
          sheet.addRow([day(i), new Date(clock), i]).getCell(2).numFmt = 'hh:mm';
        }
      }),
    takes: { series: 1, samples: 3, spots: [['kW', '2026-11-03T06:41:00Z', 1]] },
  })),
  {
    name: 'exceljs, machines in merged cells, units below, errors and formulas',
    write: () =>
      book((sheet) => {
        sheet.addRow(['Machine', 'Time', 'Gas', 'Share']);
        sheet.addRow([null, null, 'kWh', '%']);
        for (let i = 0; i < 6; i++) {
          sheet
            .addRow([
              i === 0 ? 'Dryer 1' : i === 3 ? 'Dryer 2' : null,
              day(i % 3),
              i === 4 ? { error: '#REF!' } : { formula: `1+${i}`, result: 1 + i },
              0.5 + i / 100,
            ])
            .getCell(4).numFmt = '0.0%';
        }
        sheet.mergeCells('A3:A5');
        sheet.mergeCells('A6:A8');
      }),
    takes: {
      series: 4,
      samples: 11,
      spots: [
        ['Dryer 2 / Gas', '2026-11-02T00:00:00Z', 4],
        ['Dryer 2 / Share', '2026-11-04T00:00:00Z', 55],
      ],
    },
  },
  {
    name: 'exceljs, a page of notes before the data',
    write: () =>
      book((sheet, made) => {
        sheet.addRow(['Printed for Quayside']);
        const data = made.addWorksheet('Data');
        TABLE.forEach((row) => data.addRow(row));
      }),
    takes: takesTable,
  },
  ...(['biff8', 'ods', 'xlsx'] as const).map((bookType): WrittenFile => ({
    name: `another spreadsheet library, ${bookType}`,
    write: async () => {
      const sheet = utils.aoa_to_sheet(TABLE, { cellDates: true, UTC: true });
      return new Uint8Array(
        write(utils.book_new(sheet, 'Readings'), { type: 'array', bookType }) as ArrayBuffer,
      );
    },
    takes: takesTable,
  })),
  {
    name: 'another spreadsheet library, protected by a password',
    write: async () => {
      const file = CFB.utils.cfb_new();
      CFB.utils.cfb_add(file, '/EncryptedPackage', new Uint8Array(64));
      CFB.utils.cfb_add(file, '/EncryptionInfo', new Uint8Array(64));
      return Uint8Array.from(CFB.write(file, { type: 'array' }) as unknown as number[]);
    },
    refuses: /password/,
  },
  {
    name: 'exceljs, cut off half-way',
    write: async () => {
      const bytes = await book((sheet) => TABLE.forEach((row) => sheet.addRow(row)));
      return bytes.slice(0, Math.floor(bytes.length / 2));
    },
    refuses: /cut off/,
  },
  {
    name: 'papaparse, byte order mark and quotes',
    write: async () =>
      `\uFEFF${Papa.unparse({
        fields: ['time', 'flow "in"', 'note'],
        data: [
          ['2026-01-01', '1.5', 'a "b",\nc'],
          ['2026-01-02', '2.5', ''],
        ],
      })}`,
    takes: { series: 1, samples: 2, spots: [['flow "in"', '2026-01-02T00:00:00Z', 2.5]] },
  },
  {
    name: 'fflate, lines of JSON packed with gzip',
    write: async () =>
      gzipSync(
        new TextEncoder().encode(
          '{"t":"2026-01-01T00:00:00Z","flow":1}\n{"t":"2026-01-02T00:00:00Z","flow":2}\n',
        ),
      ),
    takes: { series: 1, samples: 2 },
  },
  {
    name: 'pino, a log with response times',
    write: async () => {
      const lines: string[] = [];
      const log = pino(
        { base: { service: 'press' }, timestamp: () => `,"time":${FIRST + lines.length * 60_000}` },
        { write: (line: string) => void lines.push(line) },
      );
      for (let i = 0; i < 6; i++) log.info({ responseTime: 10 + i }, 'done');
      return lines.join('');
    },
    // The level of a log line is a number too: taken, though of little use.
    takes: { series: 1, samples: 6, may: ['level'], spots: [['responseTime', '2026-11-02T00:01:00Z', 11]] },
  },
  {
    name: 'prom-client, OpenMetrics text without times',
    write: () => registry('openmetrics'),
    asks: ['time'],
    answer: { fixedTime: FIRST },
    takes: { series: 8, samples: 8 },
  },
  {
    name: 'prom-client, plain exposition text',
    write: () => registry('plain'),
    asks: ['time'],
    answer: { fixedTime: FIRST },
    takes: { series: 8, samples: 8 },
  },
];
