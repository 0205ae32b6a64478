import {
  WHOLE_SCOPE,
  type BoardDocument,
  type IndicatorDefinition,
  type Measure,
  type Readout,
  type ReadoutParts,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, makeReadout } from '@vivid-beacon/core/src/boards';

/*
 * What the people of Hollowmere Linen have set up: indicators and boards (for rules see rules.ts). Metrics
 * are named "plant/asset/metric".
 */

export type IdOf = (name: string) => string;

/** "lower is better" with a target. */
function low(caution: number, breach: number, target: number): TargetBand {
  return { direction: 'lower', caution, breach, target };
}

function high(caution: number, breach: number, target: number): TargetBand {
  return { direction: 'higher', caution, breach, target };
}

const HOUR: WindowSpec = { kind: 'rolling', count: 1, unit: 'hour' };
const DAY: WindowSpec = { kind: 'rolling', count: 24, unit: 'hour' };

export interface DemoIndicator {
  readonly name: string;
  readonly place: string;
  readonly measure: Measure;
  readonly span: WindowSpec;
  readonly band: TargetBand;
  readonly decimals: number;
  /** Where it differs from a plain band in units, compared with the period before. */
  readonly more?: Partial<IndicatorDefinition>;
  /** Targets by month, from the month of the anchor: -1 = the one before. */
  readonly months?: Readonly<Record<number, number>>;
}

/** The definition that is in force from then on. */
export function definitionOf(
  { name, measure, span, band, decimals, more }: DemoIndicator,
  assetId: string,
  ownerId: string,
): IndicatorDefinition {
  return {
    name,
    description: '',
    assetId,
    ownerId,
    measure,
    window: span,
    hours: null,
    judge: { kind: 'limits', band },
    target: { kind: 'none' },
    reference: { kind: 'before' },
    decimals,
    display: 'units',
    boardId: null,
    ...more,
  };
}

export function demoIndicators(id: IdOf): DemoIndicator[] {
  const ratio = (upper: string, lower: string, factor: number, unit: string | null): Measure => ({
    metricId: id(upper),
    summary: 'sum',
    per: { metricId: id(lower), summary: 'sum', factor, unit },
  });
  const plants = ['Quayside', 'Foundry Lane', 'Upper Weir'];
  return [
    ...plants.map((plant) => ({
      name: 'Rewash share',
      place: `${plant}/Wash house`,
      measure: ratio(`${plant}/Wash house/Rewash weight`, `${plant}/Wash house/Washed weight`, 100, '%'),
      span: HOUR,
      band: low(3, 4, 2.5),
      decimals: 1,
    })),
    ...plants.map((plant) => ({
      name: 'Water per kg',
      place: `${plant}/Wash house`,
      measure: ratio(`${plant}/Wash house/Water used`, `${plant}/Wash house/Washed weight`, 1, 'L/kg'),
      span: HOUR,
      band: low(9, 10, 8.5),
      decimals: 1,
    })),
    ...[1, 2, 3, 4].map((n) => ({
      name: `Gas per kg, Dryer ${n}`,
      place: `Foundry Lane/Dryer ${n}`,
      measure: ratio(`Foundry Lane/Dryer ${n}/Gas used`, `Foundry Lane/Dryer ${n}/Dried weight`, 1, 'kWh/kg'),
      span: DAY,
      band: low(1.15, 1.35, 1.05),
      decimals: 2,
    })),
    {
      name: 'Ironer 2 feed speed',
      place: 'Quayside/Ironer 2',
      measure: { metricId: id('Quayside/Ironer 2/Feed speed'), summary: 'mean', per: null },
      span: DAY,
      band: high(26, 24, 28),
      decimals: 1,
      more: {
        description:
          'Mean speed at which linen is fed. Slower than rated means that the ironer holds up the line.',
        judge: { kind: 'target', direction: 'higher', clear: 93, caution: 86 },
        target: { kind: 'fixed', value: 28 },
      },
    },
    {
      name: 'Washed weight of the month',
      place: 'Quayside/Wash house',
      measure: { metricId: id('Quayside/Wash house/Washed weight'), summary: 'sum', per: null },
      span: { kind: 'toDate', unit: 'month' },
      band: high(380_000, 340_000, 400_000),
      decimals: 0,
      more: {
        description: 'Against the plan of the month, as far as it has passed.',
        judge: { kind: 'target', direction: 'higher', clear: 98, caution: 95 },
        target: { kind: 'periods', period: 'month', prorate: 'calendar' },
        display: 'thousands',
      },
      months: { [-3]: 480_000, [-2]: 480_000, [-1]: 505_000, 0: 500_000, 1: 510_000, 2: 460_000 },
    },
    {
      name: 'Rounds on time',
      place: 'Upper Weir/Delivery desk',
      measure: ratio('Upper Weir/Delivery desk/Rounds on time', 'Upper Weir/Delivery desk/Rounds', 100, '%'),
      span: DAY,
      band: high(95, 90, 97),
      decimals: 1,
    },
    {
      name: 'Steam flow',
      place: 'Quayside/Steam meter S-03',
      measure: { metricId: id('Quayside/Steam meter S-03/Steam flow'), summary: 'mean', per: null },
      span: HOUR,
      band: low(1.8, 2.2, 1.5),
      decimals: 2,
    },
  ];
}

export interface DemoBoard {
  readonly title: string;
  readonly labels: readonly string[];
  readonly document: BoardDocument;
}

export function demoBoards(id: IdOf): DemoBoard[] {
  const all = demoIndicators(id);
  const find = (name: string, place: string): DemoIndicator =>
    all.find((each) => each.name === name && each.place.startsWith(place))!;
  let next = 0;
  const readout = ({ form, ...parts }: ReadoutParts & Pick<Readout, 'form' | 'measures'>): Readout =>
    makeReadout(`r${++next}`, form, parts);
  const board = (window: WindowSpec, readouts: readonly Readout[]): BoardDocument => ({
    version: BOARD_FORMAT_VERSION,
    window,
    scope: WHOLE_SCOPE,
    hours: null,
    readouts,
  });
  const of = (form: Readout['form'], indicator: DemoIndicator, more: ReadoutParts = {}): Readout =>
    readout({
      form,
      title: indicator.name,
      measures: [indicator.measure],
      window: indicator.span,
      band: indicator.band,
      decimals: indicator.decimals,
      ...more,
    });
  const rewash = find('Rewash share', 'Quayside');
  const water = find('Water per kg', 'Quayside');
  const feed = find('Ironer 2 feed speed', 'Quayside');
  const week: WindowSpec = { kind: 'periods', count: 7, unit: 'day', current: true };
  const level = (metric: string, band: TargetBand, title: string): Readout =>
    readout({
      form: 'lamp',
      title,
      measures: [{ metricId: id(metric), summary: 'last', per: null }],
      window: HOUR,
      band,
    });
  return [
    {
      title: 'Quayside wash house',
      labels: ['Morning round'],
      document: board(week, [
        of('gauge', rewash),
        of('gauge', water),
        of('trend', rewash, { title: 'Rewash share, hourly', window: null, bucket: 'hour' }),
        level('Quayside/Ironer 2/Bed temperature', low(200, 205, 195), 'Ironer 2'),
        level('Quayside/Ironer 1/Bed temperature', low(200, 205, 195), 'Ironer 1'),
        level('Quayside/Steam meter S-03/Steam flow', low(1.8, 2.2, 1.5), 'Steam meter S-03'),
        level('Quayside/Compressor A/Air pressure', high(6.5, 6, 6.9), 'Compressor A'),
        of('figure', feed),
        readout({
          form: 'figure',
          title: 'Washed weight',
          measures: [{ metricId: id('Quayside/Wash house/Washed weight'), summary: 'sum', per: null }],
          window: { kind: 'toDate', unit: 'day' },
          decimals: 0,
        }),
        readout({
          form: 'trend',
          title: 'Ironer 2, bed temperature and feed speed',
          measures: ['Bed temperature', 'Feed speed'].map((name) => ({
            metricId: id(`Quayside/Ironer 2/${name}`),
            summary: 'mean' as const,
            per: null,
          })),
          bucket: 'hour',
          band: low(200, 205, 195),
          secondBand: feed.band,
          decimals: 1,
        }),
      ]),
    },
    {
      title: 'Foundry Lane dryers',
      labels: ['Energy'],
      document: board(week, [
        ...[1, 2, 3, 4].map((n) =>
          of('gauge', find(`Gas per kg, Dryer ${n}`, 'Foundry Lane'), { title: `Dryer ${n}` }),
        ),
        of('trend', find('Gas per kg, Dryer 3', 'Foundry Lane'), {
          title: 'Dryer 3, gas per kg',
          window: null,
          bucket: 'hour',
        }),
      ]),
    },
    {
      title: 'Upper Weir tags and rounds',
      labels: ['Morning round'],
      document: board({ kind: 'rolling', count: 3, unit: 'day' }, [
        of('gauge', find('Rounds on time', 'Upper Weir')),
        readout({
          form: 'figure',
          title: 'Packet loss, 95th percentile',
          measures: [{ metricId: id('Upper Weir/Portal P-11/Packet loss'), summary: 'p95', per: null }],
          window: DAY,
          band: low(2, 4, 1),
          decimals: 1,
        }),
        readout({
          form: 'trend',
          title: 'Portal P-11 packet loss',
          measures: [{ metricId: id('Upper Weir/Portal P-11/Packet loss'), summary: 'mean', per: null }],
          band: low(2, 4, 1),
          decimals: 1,
        }),
      ]),
    },
    {
      title: 'All plants side by side',
      labels: ['Energy', 'Morning round'],
      document: board(week, [
        readout({
          form: 'note',
          measures: [],
          text:
            '# How to read this\n\nOne value for **each plant** over the window below. A tap on a name *focuses* its plant; ' +
            'the number opens how it was made.\n\n- limits are those of the [wash house board](/boards/1)\n- water and rewash are sums over sums',
        }),
        readout({
          form: 'straight',
          measures: [rewash.measure],
          band: rewash.band,
          decimals: 2,
          groupBy: { kind: 'plant' },
          title: 'Rewash share by plant',
        }),
        readout({
          form: 'gauge',
          measures: [water.measure],
          band: water.band,
          decimals: 1,
          groupBy: { kind: 'plant' },
          title: 'Water per kg by plant',
        }),
        readout({
          form: 'ring',
          measures: [{ metricId: id('Quayside/Wash house/Washed weight'), summary: 'sum', per: null }],
          groupBy: { kind: 'plant' },
          display: 'thousands',
          title: 'Washed weight, shares',
        }),
        readout({
          form: 'trend',
          measures: [{ metricId: id('Quayside/Wash house/Washed weight'), summary: 'sum', per: null }],
          groupBy: { kind: 'plant' },
          bucket: 'day',
          mark: 'stacked',
          display: 'thousands',
          title: 'Washed weight, day by day',
        }),
        readout({
          form: 'lamp',
          measures: [{ metricId: id('Quayside/Ironer 2/Bed temperature'), summary: 'mean', per: null }],
          groupBy: { kind: 'asset' },
          window: HOUR,
          band: low(200, 205, 195),
        }),
        readout({
          form: 'trend',
          measures: [1, 2, 3, 4].map((n) => ({
            metricId: id(`Foundry Lane/Dryer ${n}/Gas used`),
            summary: 'sum' as const,
            per: {
              metricId: id(`Foundry Lane/Dryer ${n}/Dried weight`),
              summary: 'sum' as const,
              factor: 1,
              unit: 'kWh/kg',
            },
          })),
          bucket: 'hour',
          band: low(1.15, 1.35, 1.05),
          title: 'Gas per kg, four dryers',
        }),
        readout({
          form: 'figure',
          measures: [{ metricId: id('Quayside/Wash house/Water used'), summary: 'sum', per: null }],
          groupBy: { kind: 'plant' },
          hours: {
            kind: 'any',
            of: [
              { kind: 'clock', from: '22:00', to: '06:00' },
              { kind: 'weekdays', days: [6, 7] },
            ],
          },
          decimals: 0,
          title: 'Water used at night and on weekends',
        }),
      ]),
    },
  ];
}
