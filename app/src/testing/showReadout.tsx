import type {
  Asset,
  MeasureValues,
  Metric,
  QueryAnswer,
  Readout,
  ReadoutForm,
  ReadoutParts,
  TrendAnswer,
} from '@vivid-beacon/core';
import { HOUR_MS } from '@vivid-beacon/core';
import { makeReadout } from '@vivid-beacon/core/src/boards';
import { BoardFiltersProvider } from '../boards/BoardFiltersContext';
import { ReadoutView } from '../readouts/ReadoutView';
import { renderScreen, type Answers } from './renderScreen';

/* A readout by itself on a stand-in board, with made-up metrics of one plant. */

export const NOW = Date.UTC(2026, 10, 19, 6, 40);
const metric = (id: string, name: string, assetId: string, assetName: string): Metric =>
  ({
    id,
    name,
    assetId,
    assetName,
    plantId: 'p',
    plantName: 'Quayside',
    zone: 'Europe/London',
    unit: '°C',
    kind: 'level',
    origin: 'samples',
    decimals: 0,
  }) as Metric;
export const SHOWN_METRICS = [
  metric('1', 'Bed temperature', 'a', 'Ironer 1'),
  metric('2', 'Bed temperature', 'b', 'Ironer 2'),
  metric('3', 'Bed temperature', 'c', 'Ironer 3'),
];
export const ASSETS = [
  { id: 'p', parentId: null, name: 'Quayside', attributes: {} },
  { id: 'a', parentId: 'p', name: 'Ironer 1', attributes: {} },
] as unknown as Asset[];
export const BAND = { direction: 'lower' as const, caution: 200, breach: 205, target: 195 };
/** The values of one measure in an answer. */
const values = (value: number | null, part: Partial<MeasureValues> = {}): MeasureValues => ({
  metricIds: ['1'],
  perMetricIds: [],
  withinIds: [],
  values: [value],
  coverage: [value === null ? 0 : 1],
  samples: [60],
  levels: null,
  partial: false,
  asOf: NOW - 60_000,
  previous: null,
  provenance: null,
  ...part,
});
const answer = (groups: QueryAnswer['groups']): QueryAnswer => ({
  window: { start: NOW - HOUR_MS, end: NOW },
  zone: 'Europe/London',
  now: NOW,
  units: groups[0].measures.map(() => '°C'),
  start: [NOW - HOUR_MS],
  end: [NOW],
  names: null,
  cells: null,
  groups,
});
const PROVENANCE = {
  formula: 'mean of Bed temperature (Ironer 1)',
  window: { start: NOW - HOUR_MS, end: NOW },
  zone: 'Europe/London',
  minimumCoverage: 0.75,
  shared: null,
  parts: [],
};

/** The answer about single measures, with 190 as the previous value, and their provenance. */
export const measured = (...all: (number | null)[]): QueryAnswer => {
  const measures = all.map((value) => values(value, { previous: 190, provenance: PROVENANCE }));
  return answer([{ name: 'All', assetId: null, measures }]);
};

/** The answer about one group an ironer. */
export const groups = (...all: (number | null)[]): QueryAnswer =>
  answer(
    all.map((value, i) => ({
      name: `Quayside / Ironer ${i + 1}`,
      assetId: ['a', 'b', 'c'][i],
      measures: [values(value, { metricIds: [String(i + 1)], withinIds: i === 0 ? ['7'] : [] })],
    })),
  );

/** An answer with other facts about every value. */
export function withAttributes(given: QueryAnswer, facts: Partial<MeasureValues>): QueryAnswer {
  const groups = given.groups.map((group) => ({
    ...group,
    measures: group.measures.map((each) => ({ ...each, ...facts })),
  }));
  return { ...given, groups };
}

/** The options of a readout with its form; default: a gauge. */
export type ShownParts = ReadoutParts & { readonly form?: ReadoutForm };

const readout = ({ form = 'gauge', ...parts }: ShownParts = {}): Readout => ({
  ...makeReadout('r', form, {
    measures: [{ metricId: '1', summary: 'mean', per: null }],
    band: BAND,
    ...parts,
  }),
  ...(parts.reference && { reference: parts.reference }),
});
const BASE: Answers = { 'GET /api/metrics': SHOWN_METRICS, 'GET /api/assets': ASSETS };

/** A trend of values ten minutes apart, starting an hour ago. */
export function trendReadout(v: (number | null)[]): TrendAnswer {
  return {
    window: { start: NOW - HOUR_MS, end: NOW },
    zone: 'Europe/London',
    unit: '°C',
    now: NOW,
    t: v.map((_, i) => NOW - HOUR_MS + i * 600_000),
    v,
    bucket: null,
    until: null,
    gaps: [],
    samples: v.length,
  };
}

/** Shows a readout. @returns what was requested and sent, and the board's own answers. */
export function showReadout(part: ShownParts, answers: Answers, focus: string | null = null) {
  const onFocus = jest.fn();
  const onBand = jest.fn();
  const onStretch = jest.fn();
  const onKeep = jest.fn();
  const look = {
    window: { kind: 'rolling' as const, count: 1, unit: 'hour' as const },
    scope: { assetIds: null, attributes: [] },
    hours: null,
    focus,
    onFocus,
    onKeep,
    onBand,
    onStretch,
  };
  const view = renderScreen(
    <BoardFiltersProvider filters={look}>
      <ReadoutView readout={readout(part)} />
    </BoardFiltersProvider>,
    { ...BASE, ...answers },
  );
  return { ...view, onFocus, onKeep, onBand, onStretch };
}
