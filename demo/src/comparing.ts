import {
  WHOLE_SCOPE,
  type BoardDocument,
  type Measure,
  type Readout,
  type ReadoutParts,
} from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, makeReadout } from '@vivid-beacon/core/src/boards';
import type { IdOf } from './layout';

/** The board of Hollowmere Linen that compares machines, meters, hours and hired equipment. */
export function comparingBoard(id: IdOf, assetId: (place: string) => string): BoardDocument {
  const sum = (metric: string): Measure => ({ metricId: id(metric), summary: 'sum', per: null });
  const share = (upper: string, lower: string): Measure => ({
    ...sum(upper),
    per: { metricId: id(lower), summary: 'sum', factor: 100, unit: '%' },
  });
  let next = 0;
  const readout = ({ form, ...parts }: ReadoutParts & Pick<Readout, 'form' | 'measures'>): Readout =>
    makeReadout(`r${++next}`, form, parts);
  const machine = 'Quayside/Ironer 1';
  const unit = 'Quayside/RC-180 A';
  const ofPlants = {
    assetIds: ['Ironing hall', 'Dryers'].map((area) => assetId(`Quayside/${area}`)),
    attributes: [],
  };
  const gas: Measure = {
    ...sum('Foundry Lane/Dryer 1/Gas used'),
    per: { metricId: id('Foundry Lane/Dryer 1/Dried weight'), summary: 'sum', factor: 1, unit: 'kWh/kg' },
  };
  return {
    version: BOARD_FORMAT_VERSION,
    window: { kind: 'periods', count: 7, unit: 'day', current: true },
    scope: WHOLE_SCOPE,
    hours: null,
    readouts: [
      readout({
        form: 'ranking',
        title: 'Machines of Quayside by output',
        measures: [
          sum(`${machine}/Pieces finished`),
          share(`${machine}/Pieces rejected`, `${machine}/Pieces finished`),
          share(`${machine}/Hours run`, `${machine}/Hours planned`),
        ],
        groupBy: { kind: 'asset' },
        scope: ofPlants,
        moreBands: [
          { direction: 'lower', caution: 2, breach: 3, target: 1.5 },
          { direction: 'higher', caution: 70, breach: 60, target: 80 },
        ],
      }),
      readout({
        form: 'ranking',
        title: 'Dryers by gas per kg',
        measures: [gas],
        groupBy: { kind: 'asset' },
        band: { direction: 'lower', caution: 1.15, breach: 1.35, target: 1.05 },
        order: 'worst',
        rows: 6,
        moves: true,
        decimals: 2,
      }),
      readout({
        form: 'ranking',
        title: 'Electricity by floor area',
        measures: [
          { ...sum('Quayside/Electricity/Electricity used'), perAttribute: 'Floor area (m²)' },
          sum('Quayside/Electricity/Electricity used'),
        ],
        groupBy: { kind: 'plant' },
      }),
      readout({
        form: 'breakdown',
        title: 'Electricity of Quayside',
        measures: [sum('Quayside/Electricity/Electricity used')],
        groupBy: { kind: 'part', assetId: assetId('Quayside/Electricity') },
        parts: 'ring',
        decimals: 0,
      }),
      readout({
        form: 'breakdown',
        title: 'Electricity of Foundry Lane, day by day',
        measures: [sum('Foundry Lane/Electricity/Electricity used')],
        groupBy: { kind: 'part', assetId: assetId('Foundry Lane/Electricity') },
        parts: 'overTime',
        decimals: 0,
      }),
      readout({
        form: 'scatter',
        title: 'Hired equipment: how often out, and for what part of the list price',
        measures: [
          share(`${unit}/Hours out`, `${unit}/Hours available`),
          share(`${unit}/Income`, `${unit}/Income at list price`),
          sum(`${unit}/Income`),
        ],
        groupBy: { kind: 'attribute', name: 'Model' },
        keepBlanks: false,
        window: { kind: 'rolling', count: 28, unit: 'day' },
        band: { direction: 'higher', caution: 55, breach: 40, target: 60 },
        moreBands: [{ direction: 'higher', caution: 40, breach: 25, target: 45 }],
        decimals: 1,
      }),
      readout({
        form: 'table',
        title: 'Machines of all plants',
        measures: [
          sum(`${machine}/Pieces finished`),
          share(`${machine}/Pieces rejected`, `${machine}/Pieces finished`),
          sum(`${machine}/Hours run`),
        ],
        groupBy: { kind: 'plant' },
        steps: [{ kind: 'asset' }],
        moreBands: [{ direction: 'lower', caution: 2, breach: 3, target: 1.5 }],
        beside: [
          { measure: 0, show: 'share' },
          { measure: 1, show: 'change' },
        ],
        computed: [{ name: 'Pieces an hour', expression: 'a / c', unit: 'pieces/h' }],
        size: { columns: 12, rows: 6 },
      }),
      readout({
        form: 'table',
        title: 'Quayside: output, stops and remarks',
        measures: [
          sum(`${machine}/Pieces finished`),
          share(`${machine}/Pieces rejected`, `${machine}/Pieces finished`),
        ],
        groupBy: { kind: 'asset' },
        scope: ofPlants,
        moreBands: [{ direction: 'lower', caution: 2, breach: 3, target: 1.5 }],
        beside: [
          { measure: 0, show: 'trend' },
          { measure: 0, show: 'daily' },
          { measure: 0, show: 'recentDaily' },
        ],
        recentDays: 1,
        notes: ['stops', 'remarks'],
        cells: 'numbers',
        size: { columns: 12, rows: 5 },
      }),
      readout({
        form: 'table',
        title: 'Gas per kg of the dryers, day by day',
        measures: [gas],
        groupBy: { kind: 'asset' },
        band: { direction: 'lower', caution: 1.15, breach: 1.35, target: 1.05 },
        periods: 'day',
        cells: 'numbers',
        decimals: 2,
        size: { columns: 12, rows: 5 },
      }),
      readout({
        form: 'trend',
        title: 'Gas per kg of the dryers',
        measures: [gas],
        groupBy: { kind: 'asset' },
        multiplesBy: { kind: 'plant' },
        bucket: 'day',
        compare: 'none',
        decimals: 2,
      }),
      readout({
        form: 'grid',
        title: 'Washed weight of Quayside in a usual week',
        measures: [sum('Quayside/Wash house/Washed weight')],
        window: { kind: 'rolling', count: 28, unit: 'day' },
        decimals: 0,
      }),
      readout({
        form: 'grid',
        title: 'Ironer 2, bed temperature by hour',
        measures: [{ metricId: id('Quayside/Ironer 2/Bed temperature'), summary: 'max', per: null }],
        layout: 'dateHour',
        band: { direction: 'lower', caution: 200, breach: 205, target: 195 },
        decimals: 1,
      }),
      readout({
        form: 'ranking',
        title: 'Income from hired equipment, by category',
        measures: [sum(`${unit}/Income`), share(`${unit}/Hours out`, `${unit}/Hours available`)],
        groupBy: { kind: 'attribute', name: 'Category' },
        steps: [
          { kind: 'attribute', name: 'Type' },
          { kind: 'attribute', name: 'Model' },
        ],
        keepBlanks: false,
        window: { kind: 'rolling', count: 28, unit: 'day' },
        shares: 'running',
        decimals: 0,
      }),
    ],
  };
}
