import type { OwnFile } from './ownFiles';

const text = (...lines: string[]): string => `${lines.join('\n')}\n`;

/** Files made after the reader had been written and mended on the others: how it does on what it was not made for. */
export const LATER_FILES: readonly OwnFile[] = [
  {
    name: 'scada-export.csv',
    content: text(
      '"TagName","TimeStamp","Value","Quality"',
      '"FL.Press.01","2026-11-19 06:00:00.000","1.25","Good"',
      '"FL.Press.02","2026-11-19 06:00:00.500","8.75","Good"',
      '"FL.Press.01","2026-11-19 06:01:00.000","1.30","Good"',
      '"FL.Press.02","2026-11-19 06:01:00.500","8.80","Bad"',
    ),
    takes: { series: 2, samples: 4, spots: [['FL.Press.02', '2026-11-19T06:00:00.500Z', 8.75]] },
  },
  {
    name: 'smart-meter.csv',
    content: text(
      'Zählernummer;Datum;Von;Bis;Verbrauch (kWh)',
      '1EMH00123;01.03.2026;00:00;00:15;0,125',
      '1EMH00123;01.03.2026;00:15;00:30;0,150',
      '1EMH00123;01.03.2026;00:30;00:45;0,175',
    ),
    takes: { series: 1, samples: 3, spots: [['Verbrauch', '2026-03-01T00:15:00Z', 0.15]], may: ['Bis'] },
  },
  {
    name: 'tariff-months.csv',
    content: text(
      'Mois,Consommation,Coût',
      'janv. 2026,"1 250,5","312,60 €"',
      'févr. 2026,"1 100,0","280,10 €"',
    ),
    takes: { series: 2, samples: 4, spots: [['Coût', '2026-02-01T00:00:00Z', 280.1]] },
  },
  {
    name: 'weather-station.txt',
    content: text(
      '# station 12',
      '# lat 54.1',
      'YYYY|MM|DD|HH|T|RH',
      '2026|01|05|00|1.5|80',
      '2026|01|05|01|1.2|82',
    ),
    takes: { series: 2, samples: 4, spots: [['RH', '2026-01-05T01:00:00Z', 82]] },
  },
  {
    name: 'newest-first.csv',
    content: text(
      'Time,Level',
      ...Array.from(
        { length: 50 },
        (_, i) => `2026-01-${String(31 - Math.floor(i / 2)).padStart(2, '0')} ${i % 2 ? '00' : '12'}:00,${i}`,
      ),
    ),
    takes: { series: 1, samples: 50 },
  },
  {
    name: 'two-sites-no-names.csv',
    content: text(
      'time,kW',
      ...Array.from({ length: 10 }, (_, i) => `2026-01-01 0${i}:00,${i}\n2026-01-01 0${i}:00,${100 + i}`),
    ),
    asks: ['collisions'],
  },
  {
    name: 'numeric-station-ids.csv',
    content: text(
      'station_id,date,flow',
      ...[101, 205].flatMap((id) =>
        ['2026-01-01', '2026-01-02', '2026-01-03', '2026-01-04', '2026-01-05'].map(
          (day, i) => `${id},${day},${id + i}`,
        ),
      ),
    ),
    takes: { series: 2, samples: 10, spots: [['205', '2026-01-02T00:00:00Z', 206]] },
  },
  {
    name: 'excel-semicolon-sep-line.csv',
    content: text('sep=;', 'date;kWh', '2026-01-01;5', '2026-01-02;6'),
    takes: { series: 1, samples: 2 },
  },
  {
    name: 'status-and-value.csv',
    content: text(
      'ts,value,status',
      '2026-01-01T00:00:00Z,5,OK',
      '2026-01-01T00:15:00Z,6,OK',
      '2026-01-01T00:30:00Z,,FAIL',
      '2026-01-01T00:45:00Z,8,OK',
    ),
    takes: { series: 1, samples: 3 },
  },
  {
    name: 'utc-and-local.csv',
    content: text(
      'UTC time,Local time,Flow',
      '2026-07-01 06:00,2026-07-01 07:00,1',
      '2026-07-01 07:00,2026-07-01 08:00,2',
    ),
    takes: { series: 1, samples: 2, spots: [['Flow', '2026-07-01T06:00:00Z', 1]] },
  },
  {
    name: 'quarter-columns.csv',
    content: text(
      'Site,Unit,Q1 2025,Q2 2025,Q3 2025,Q4 2025',
      'Quayside,MWh,10,11,12,13',
      'Foundry Lane,MWh,20,21,22,23',
    ),
    takes: { series: 2, samples: 8, spots: [['Foundry Lane', '2025-10-01T00:00:00Z', 23]] },
  },
  {
    name: 'negative-and-thousands.csv',
    content: text('Date\tNet\tGross', '1/13/2026\t-1,234.50\t2,000', '1/14/2026\t(10.5)\t1,500.25'),
    takes: { series: 2, samples: 4, spots: [['Net', '2026-01-14T00:00:00Z', -10.5]] },
  },
  {
    name: 'hours-one-to-24.csv',
    content: text(
      'Date,Hour,Load',
      '2026-01-01,1,100',
      '2026-01-01,2,110',
      '2026-01-01,24,90',
      '2026-01-02,1,95',
    ),
    takes: { series: 1, samples: 4 },
  },
  {
    name: 'lists-with-headings-inside.json',
    content: JSON.stringify({
      results: [
        {
          series: [
            {
              name: 'flow',
              columns: ['time', 'value'],
              values: [
                ['2026-01-01T00:00:00Z', 1],
                ['2026-01-01T00:01:00Z', 2],
              ],
            },
          ],
        },
      ],
    }),
    takes: { series: 1, samples: 2 },
  },
  {
    name: 'duplicate-headings.csv',
    content: text('Time,Temp,Temp', '2026-01-01,1,10', '2026-01-02,2,20'),
    takes: { series: 2, samples: 4 },
  },
  {
    name: 'trailing-notes.csv',
    content: text('date,kWh', '2026-01-01,5', '2026-01-02,6', '', 'Source: meter 12', 'Printed 2026-01-03'),
    takes: { series: 1, samples: 2 },
  },
  {
    name: 'percent-and-blank-zero.csv',
    content: text('week,OEE,scrap', '2026-W10,82.5 %,0', '2026-W11,,0', '2026-W12,79 %,1'),
    takes: { series: 2, samples: 5, spots: [['scrap', '2026-03-02T00:00:00Z', 0]] },
  },
  {
    name: 'am-pm-two-columns.csv',
    content: text('Date,Time,Amps', '02/28/2026,11:45 PM,5', '03/01/2026,12:15 AM,6'),
    takes: { series: 1, samples: 2, spots: [['Amps', '2026-03-01T00:15:00Z', 6]] },
  },
];
