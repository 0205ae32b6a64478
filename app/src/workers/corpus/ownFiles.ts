import { gzipSync } from 'node:zlib';
import type { Careful } from './expectation';

/** Small files made by hand, each with one trap, and what a careful person takes from it. */
export interface OwnFile extends Careful {
  readonly name: string;
  readonly content: string | Uint8Array;
}

const text = (...lines: string[]): string => `${lines.join('\n')}\n`;
const days = (n: number, make: (day: string, i: number) => string, from = Date.UTC(2025, 0, 1)): string[] =>
  Array.from({ length: n }, (_, i) => make(new Date(from + i * 86_400_000).toISOString().slice(0, 10), i));

export const OWN_FILES: readonly OwnFile[] = [
  {
    name: 'one-row.csv',
    content: text('time,flow (m3/h)', '2026-11-19 06:00,1.5'),
    takes: { series: 1, samples: 1, spots: [['flow', '2026-11-19T06:00:00Z', 1.5]] },
  },
  {
    name: 'machines-and-quantities.csv',
    content: text(
      'Zeit;Anlage;Messgröße;Wert;Einheit',
      ...['06:00', '06:15', '06:30'].flatMap((clock, i) => [
        `19.11.2026 ${clock};Trockner 1;Temperatur;${60 + i},5;°C`,
        `19.11.2026 ${clock};Trockner 1;Gas;${10 + i};kWh`,
        `19.11.2026 ${clock};Trockner 2;Temperatur;${70 + i},5;°C`,
        `19.11.2026 ${clock};Trockner 2;Gas;${20 + i};kWh`,
      ]),
    ),
    takes: {
      series: 4,
      samples: 12,
      spots: [
        ['Trockner 1 / Temperatur', '2026-11-19T06:00:00Z', 60.5],
        ['Trockner 2 / Gas', '2026-11-19T06:30:00Z', 22],
      ],
    },
  },
  {
    name: 'names-under-any-heading.csv',
    content: text('quando,dove,portata', ...days(10, (day, i) => `${day},nord,${i}\n${day},sud,${100 + i}`)),
    takes: { series: 2, samples: 20, spots: [['sud', '2025-01-03T00:00:00Z', 102]] },
  },
  {
    name: 'names-and-two-values.csv',
    content: text(
      'time,line,temp (°C),weight (kg)',
      ...days(3, (day, i) => `${day},Line 1,${60 + i},${i}\n${day},Line 2,${70 + i},${10 + i}`),
    ),
    takes: {
      series: 4,
      samples: 12,
      spots: [
        ['Line 2 / temp', '2025-01-02T00:00:00Z', 71],
        ['Line 1 / weight', '2025-01-03T00:00:00Z', 2],
      ],
    },
  },
  {
    name: 'blank-first-year.csv',
    content: text('date,a,b', ...days(700, (day, i) => `${day},${i},${i < 450 ? '' : i / 2}`)),
    takes: { series: 2, samples: 950, spots: [['b', '2026-03-27T00:00:00Z', 225]] },
  },
  {
    name: 'words-among-numbers.csv',
    content: text('date,power (kW)', ...days(100, (day, i) => `${day},${i % 5 < 2 ? 'maintenance' : i}`)),
    takes: { series: 1, samples: 60, refused: 40 },
  },
  {
    name: 'register-like-a-time.csv',
    content: text('time,register', ...days(20, (day, i) => `${day} 06:00,${1_700_000_000 + i * 3600}`)),
    takes: { series: 1, samples: 20, spots: [['register', '2025-01-02T06:00:00Z', 1_700_003_600]] },
  },
  {
    name: 'volume-like-spreadsheet-days.csv',
    content: text('date,volume (L)', ...days(20, (day, i) => `${day},${45_123.5 + i}`)),
    takes: { series: 1, samples: 20, spots: [['volume', '2025-01-01T00:00:00Z', 45_123.5]] },
  },
  {
    name: 'years.csv',
    content: text('year,mean', ...Array.from({ length: 60 }, (_, i) => `${1959 + i},${315 + i}`)),
    takes: { series: 1, samples: 60, spots: [['mean', '1960-01-01T00:00:00Z', 316]] },
  },
  {
    name: 'year-and-month.csv',
    content: text('month;kWh', '2025-01;100', '2025-02;90', '2025-03;80'),
    takes: { series: 1, samples: 3, spots: [['kWh', '2025-02-01T00:00:00Z', 90]] },
  },
  {
    name: 'month-names-german.csv',
    content: text(
      'Monat;Strom (kWh)',
      'Januar 2025;1.234,5',
      'Februar 2025;1.100,25',
      'März 2025;980,5',
      'Dezember 2025;1.400,75',
    ),
    takes: {
      series: 1,
      samples: 4,
      spots: [
        ['Strom', '2025-01-01T00:00:00Z', 1234.5],
        ['Strom', '2025-03-01T00:00:00Z', 980.5],
      ],
    },
  },
  {
    name: 'month-names-french.csv',
    content: text('Date;Gaz (kWh)', '1 janv. 2026;12,5', '2 févr. 2026;13,5', '15 août 2026;9,5'),
    takes: { series: 1, samples: 3, spots: [['Gaz', '2026-08-15T00:00:00Z', 9.5]] },
  },
  {
    name: 'month-names-english.csv',
    content: text('when,kW', '19-Nov-2026 06:40,1', '"Nov 20, 2026 6:40 pm",2', '21 November 2026,3'),
    takes: { series: 1, samples: 3, spots: [['kW', '2026-11-20T18:40:00Z', 2]] },
  },
  {
    name: 'date-and-clock.csv',
    content: text('Datum;Uhrzeit;Temperatur', '19.11.2026;06:40;60,5', '20.11.2026;07:10;61,5'),
    takes: { series: 1, samples: 2, spots: [['Temperatur', '2026-11-20T07:10:00Z', 61.5]] },
  },
  {
    name: 'clock-before-date.csv',
    content: text('clock,day,temp', '06:40,2026-11-19,60.5', '07:10,2026-11-20,61.5'),
    takes: { series: 1, samples: 2, spots: [['temp', '2026-11-20T07:10:00Z', 61.5]] },
  },
  {
    name: 'year-month-day-columns.csv',
    content: text('year,month,day,hour,temp', '2026,11,19,6,60.5', '2026,11,19,7,61.5'),
    takes: { series: 1, samples: 2, spots: [['temp', '2026-11-19T07:00:00Z', 61.5]] },
  },
  {
    name: 'two-digit-years.csv',
    content: text('date,v', '19/11/26,1', '20/11/26,2', '30/11/26,3'),
    asks: ['century', 'dayOrMonth'],
    answer: { century: '2000', timeFormat: 'day-first' },
    takes: { series: 1, samples: 3, spots: [['v', '2026-11-30T00:00:00Z', 3]] },
  },
  {
    name: 'before-1900.csv',
    content: text('date,temp', '1850-01-01,3.5', '1850-02-01,4.5', '1969-07-20,20'),
    takes: { series: 1, samples: 3, spots: [['temp', '1850-02-01T00:00:00Z', 4.5]] },
  },
  {
    name: 'quarters.csv',
    content: text('Quarter,Energy (MWh)', 'Q1 2025,10', 'Q2 2025,11', '2025-Q3,12'),
    takes: { series: 1, samples: 3, spots: [['Energy', '2025-07-01T00:00:00Z', 12]] },
  },
  {
    name: 'iso-weeks.csv',
    content: text('week,kg', '2026-W01,5', '2026-W02,6', '2026-W03,7'),
    takes: { series: 1, samples: 3, spots: [['kg', '2025-12-29T00:00:00Z', 5]] },
  },
  {
    name: 'eight-digits.csv',
    content: text('date,kWh', '20261101,5', '20261102,6', '20261103,7'),
    takes: { series: 1, samples: 3, spots: [['kWh', '2026-11-02T00:00:00Z', 6]] },
  },
  {
    name: 'twenty-four-hours.csv',
    content: text('time,kW', '2026-11-19 23:00,1', '2026-11-19 24:00,2', '2026-11-20 01:00,3'),
    takes: { series: 1, samples: 3, spots: [['kW', '2026-11-20T00:00:00Z', 2]] },
  },
  {
    name: 'named-zones.csv',
    content: text(
      'time,kW',
      '2026-07-01 06:00 CEST,1',
      '2026-07-01 07:00 Europe/Berlin,2',
      '2026-07-01 06:00 UTC,3',
      '2026-07-01 09:00 GMT+2,4',
    ),
    takes: {
      series: 1,
      samples: 4,
      spots: [
        ['kW', '2026-07-01T04:00:00Z', 1],
        ['kW', '2026-07-01T05:00:00Z', 2],
        ['kW', '2026-07-01T07:00:00Z', 4],
      ],
    },
  },
  {
    name: 'some-with-offset.csv',
    content: text(
      'time,kW',
      '2026-01-01T06:00:00+01:00,1',
      '2026-01-01T06:00:00,2',
      '2026-01-01T07:00:00Z,3',
    ),
    takes: { series: 1, samples: 3, spots: [['kW', '2026-01-01T05:00:00Z', 1]] },
  },
  {
    name: 'epochs-mixed.csv',
    content: text('ts,kW', '1763534400,1', '1763534460000,2', '1763534520000000,3'),
    takes: { series: 1, samples: 3, spots: [['kW', '2025-11-19T06:42:00Z', 3]] },
  },
  {
    name: 'day-or-month.csv',
    content: text('day,flow', '03/04/2026,1', '05/06/2026,2'),
    asks: ['dayOrMonth'],
    answer: { timeFormat: 'month-first' },
    takes: { series: 1, samples: 2, spots: [['flow', '2026-05-06T00:00:00Z', 2]] },
  },
  {
    name: 'day-decided-late.csv',
    content: text(
      'day,flow',
      ...Array.from(
        { length: 12 * 30 },
        (_, i) =>
          `${String(1 + (i % 12)).padStart(2, '0')}/${String(1 + (Math.floor(i / 12) % 12)).padStart(2, '0')}/${2020 + Math.floor(i / 144)},${i}`,
      ),
      '25/12/2026,7',
    ),
    takes: {
      series: 1,
      samples: 361,
      spots: [
        ['flow', '2026-12-25T00:00:00Z', 7],
        ['flow', '2020-02-01T00:00:00Z', 12],
      ],
    },
  },
  {
    name: 'two-time-columns.csv',
    content: text('measured,received,value', ...days(5, (day, i) => `${day} 06:00,${day} 06:00:0${i},${i}`)),
    takes: { series: 1, samples: 5, spots: [['value', '2025-01-02T06:00:00Z', 1]] },
  },
  {
    name: 'array-of-objects.json',
    content: JSON.stringify([
      { time: '2026-11-19T06:00:00Z', flow: 1, temp: { mean: 60 } },
      { time: '2026-11-19T07:00:00Z', flow: 2, temp: { mean: 61 } },
    ]),
    takes: { series: 2, samples: 4, spots: [['temp.mean', '2026-11-19T07:00:00Z', 61]] },
  },
  {
    name: 'columns.json',
    content: JSON.stringify({
      time: ['2026-11-19T06:00:00Z', '2026-11-19T07:00:00Z', '2026-11-19T08:00:00Z'],
      flow: [1, 2, 3],
      temp: [60, null, 62],
    }),
    takes: { series: 2, samples: 5, spots: [['temp', '2026-11-19T08:00:00Z', 62]] },
  },
  {
    name: 'nested-lines.ndjson',
    content: text(
      ...days(4, (day, i) =>
        [
          JSON.stringify({ ts: `${day}T06:00:00Z`, sensor: { id: 'a' }, data: { temp: i } }),
          JSON.stringify({ ts: `${day}T06:00:00Z`, sensor: { id: 'b' }, data: { temp: 10 + i } }),
        ].join('\n'),
      ),
    ),
    takes: { series: 2, samples: 8, spots: [['b', '2025-01-02T06:00:00Z', 11]] },
  },
  {
    name: 'late-key.ndjson',
    content: text(
      ...days(
        6000,
        (day, i) =>
          JSON.stringify({ t: `${day}T00:00:00Z`, note: 'x'.repeat(60), a: i, ...(i >= 5000 && { b: i }) }),
        Date.UTC(1990, 0, 1),
      ),
    ),
    takes: { series: 2, samples: 7000 },
  },
  {
    name: 'packed.csv.gz',
    content: gzipSync(text('time,flow', '2026-11-19 06:00,1.5', '2026-11-19 07:00,2.5')),
    takes: { series: 1, samples: 2, spots: [['flow', '2026-11-19T07:00:00Z', 2.5]] },
  },
  {
    name: 'signs.csv',
    content: text(
      'date;share;cost;balance;change;count',
      `2026-01-01;12.5 %;€1'234.50;(35.2);4.5-;1'250`,
      `2026-01-02;13 %;€ 1'000;(30);5;1'300`,
    ),
    takes: {
      series: 5,
      samples: 10,
      spots: [
        ['share', '2026-01-01T00:00:00Z', 12.5],
        ['cost', '2026-01-01T00:00:00Z', 1234.5],
        ['balance', '2026-01-01T00:00:00Z', -35.2],
        ['change', '2026-01-01T00:00:00Z', -4.5],
        ['count', '2026-01-02T00:00:00Z', 1300],
      ],
    },
  },
  {
    name: 'durations.csv',
    content: text('start,run time', '2026-11-19 06:00,01:30:00', '2026-11-19 09:00,00:45:30'),
    takes: { series: 1, samples: 2, spots: [['run time', '2026-11-19T06:00:00Z', 5400]] },
  },
  {
    name: 'names-carried-down.csv',
    content: text(
      'machine,time,kW',
      'Dryer 1,2026-11-19 06:00,1',
      ',2026-11-19 07:00,2',
      ',2026-11-19 08:00,3',
      'Dryer 2,2026-11-19 06:00,4',
      ',2026-11-19 07:00,5',
    ),
    takes: { series: 2, samples: 5, spots: [['Dryer 2', '2026-11-19T07:00:00Z', 5]] },
  },
  {
    name: 'row-of-units.csv',
    content: text('time,flow,temp', ',m3/h,°C', '2026-11-19 06:00,1,60', '2026-11-19 07:00,2,61'),
    takes: { series: 2, samples: 4, spots: [['temp', '2026-11-19T07:00:00Z', 61]] },
  },
  {
    name: 'names-like-totals.csv',
    content: text(
      'tag,time,value',
      ...days(5, (day, i) => `Total flow,${day},${i}\nMax pressure,${day},${10 + i}`),
    ),
    takes: { series: 2, samples: 10, spots: [['Total flow', '2025-01-02T00:00:00Z', 1]] },
  },
  {
    name: 'total-at-the-end.csv',
    content: text('time,kWh', '2026-01-01,5', '2026-01-02,6', '2026-01-03,7', 'Total,18'),
    takes: { series: 1, samples: 3, leftOut: 2 },
  },
  {
    name: 'total-that-does-not-add-up.csv',
    content: text('time,kWh', '2026-01-01,5', 'Sum of something else,99', '2026-01-02,6', '2026-01-03,7'),
    takes: { series: 1, samples: 3, refused: 1 },
  },
  {
    name: 'ragged.csv',
    content: text('time,a,b', '2026-01-01,1,10', '2026-01-02,2,20,30', '2026-01-03,3', '2026-01-04,4,40'),
    takes: { series: 2, samples: 5, refused: 1 },
  },
  {
    name: 'headings-again.csv',
    content: text('time,flow', '2026-01-01,1', '2026-01-02,2', 'time,flow', '2026-01-03,3', '2026-01-04,4'),
    takes: { series: 1, samples: 4, leftOut: 2 },
  },
  {
    name: 'fewer-headings.csv',
    content: text('time,flow', '1,2026-01-01,5.5', '2,2026-01-02,6.5', '3,2026-01-03,7.5'),
    takes: { series: 1, samples: 3, spots: [['flow', '2026-01-02T00:00:00Z', 6.5]], may: ['Column 1'] },
  },
  { name: 'headings-only.csv', content: text('time,flow,temp'), asks: ['rows'] },
  {
    name: 'two-values-at-one-time.csv',
    content: text('time,flow', '2026-01-01,1', '2026-01-02,2', '2026-01-02,3', '2026-01-03,4'),
    asks: ['collisions'],
    answer: { collisions: 'mean' },
    takes: { series: 1, samples: 3, spots: [['flow', '2026-01-02T00:00:00Z', 2.5]] },
  },
  {
    name: 'repeats.csv',
    content: text(
      'time,flow',
      '2026-01-01,1',
      '2026-01-02,2',
      '2026-01-01,1',
      '2026-01-02,2',
      '2026-01-03,3',
    ),
    takes: { series: 1, samples: 3, repeated: 2 },
  },
  {
    name: 'incidents.csv',
    content: text(
      'opened,kind,what',
      '2026-01-01 06:00,jam,Ironer 2 stopped',
      '2026-01-01 09:00,leak,Water under washer',
      '2026-01-02 06:00,jam,Ironer 1 stopped',
    ),
    asks: ['values'],
    answer: { events: { per: 'day', of: 'count' } },
    takes: { series: 1, samples: 2, spots: [['rows', '2026-01-01T00:00:00Z', 2]] },
  },
  {
    name: 'picture.csv',
    content: Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13]),
    refuses: /picture/i,
  },
  {
    name: 'web-page.xls',
    content: text('<!DOCTYPE html>', '<html><body><table><tr><td>1</td></tr></table></body></html>'),
    refuses: /web page/i,
  },
  {
    name: 'exposed.om',
    content: text(
      '# TYPE flow gauge',
      '# UNIT flow_m3 m3',
      'flow{line="1",plant="north"} 1.5 1763534400',
      'flow{line="2",plant="north"} 2.5 1763534400',
      'flow{line="1",plant="north"} 1.6 1763534460',
      '# EOF',
    ),
    takes: { series: 2, samples: 3 },
  },
  {
    name: 'exposed-without-times.prom',
    content: text('# HELP flow Flow.', '# TYPE flow gauge', 'flow{line="1"} 1.5', 'flow{line="2"} 2.5'),
    asks: ['time'],
    answer: { fixedTime: Date.UTC(2026, 0, 1) },
    takes: { series: 2, samples: 2 },
  },
  {
    name: 'twelve-hours.csv',
    content: text('at,kW', '11/19/2026 6:40 PM,1', '11/19/2026 12:10 AM,2', '11/20/2026 12:10 PM,3'),
    takes: { series: 1, samples: 3, spots: [['kW', '2026-11-19T00:10:00Z', 2]] },
  },
  {
    name: 'side-by-side.csv',
    content: text(
      'Time,Gas,Time,Steam',
      '2026-01-01 06:00,1,2026-01-01 06:05,10',
      '2026-01-01 07:00,2,2026-01-01 07:05,11',
      '2026-01-01 08:00,3,,',
    ),
    takes: { series: 2, samples: 5, spots: [['Steam', '2026-01-01T07:05:00Z', 11]] },
  },
  {
    name: 'spreadsheet-days.csv',
    content: text('Datum;kWh', '45980;5', '45981;6', '45982;7'),
    takes: { series: 1, samples: 3, spots: [['kWh', '2025-11-19T00:00:00Z', 5]] },
  },
  {
    name: 'mail-dates.csv',
    content: text('date,kW', '"Thu, 19 Nov 2026 06:40:00 GMT",1', '"Fri, 20 Nov 2026 06:40:00 +0100",2'),
    takes: { series: 1, samples: 2, spots: [['kW', '2026-11-20T05:40:00Z', 2]] },
  },
  {
    name: 'log-dates.csv',
    content: text('when;ms', '19/Nov/2026:06:40:00 +0100;12', '19/Nov/2026:06:41:00 +0100;13'),
    takes: { series: 1, samples: 2, spots: [['ms', '2026-11-19T05:40:00Z', 12]] },
  },
  {
    // At first the time was asked for here; since then times that run across are read.
    name: 'months-across.csv',
    content: text('Plant;Jan 2026;Feb 2026;Mar 2026', 'Quayside;1,5;2,5;3,5', 'Upper Weir;4,5;5,5;6,5'),
    takes: { series: 2, samples: 6, spots: [['Upper Weir', '2026-02-01T00:00:00Z', 5.5]] },
  },
  { name: 'no-time.csv', content: text('name,kW', 'Dryer 1,5', 'Dryer 2,6'), asks: ['time'] },
  { name: 'clock-only.csv', content: text('time,kW', '06:00,1', '06:15,2', '06:30,3'), asks: ['time'] },
  {
    name: 'tabs.tsv',
    content: text('t\tv', '2026-01-01\t1.234,5', '2026-01-02\t2,5'),
    takes: { series: 1, samples: 2, spots: [['v', '2026-01-01T00:00:00Z', 1234.5]] },
  },
  {
    name: 'error-cells.csv',
    content: text('time,v', '2026-01-01,1', '2026-01-02,#REF!', '2026-01-03,#DIV/0!', '2026-01-04,4'),
    takes: { series: 1, samples: 2 },
  },
  {
    name: 'preamble.csv',
    content: text(
      'Energy report',
      'Site:;Quayside',
      'Printed 24.11.2026',
      '',
      'Time;Gas [kWh];Steam [t/h]',
      '19.11.2026 06:00;1,5;-',
      '19.11.2026 07:00;1,7;0,9',
    ),
    takes: { series: 2, samples: 3, spots: [['Steam', '2026-11-19T07:00:00Z', 0.9]] },
  },
];
