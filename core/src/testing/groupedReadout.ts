import type { Metric } from '../api/metrics';
import { makeReadout, type ReadoutParts } from '../board/board';
import { WHOLE_SCOPE, type MeasureValues, type QueryAnswer } from '../domain/query';
import type { ReadoutForm } from '../readouts/forms';
import type { ReadoutInputs } from '../readouts/readoutData';

/* A readout grouped by asset and the answers to it, for tests of forms. */

export const NOON = Date.UTC(2026, 10, 19, 12);
const DAY = 86_400_000;

const METRICS: Readonly<Record<string, Pick<Metric, 'name' | 'unit'>>> = {
  '1': { name: 'Gas used', unit: 'kWh' },
  '2': { name: 'Dried weight', unit: 'kg' },
  '3': { name: 'Bed temperature', unit: '°C' },
};

/** Inputs of a form about the gas used by each asset; further measures by their metric's id. */
export function groupedInputs(
  form: ReadoutForm,
  parts: ReadoutParts = {},
  more: readonly string[] = [],
): ReadoutInputs<never> {
  const measures = ['1', ...more].map((metricId) => ({
    metricId,
    summary: metricId === '3' ? ('mean' as const) : ('sum' as const),
    per: null,
  }));
  return {
    readout: makeReadout('r', form, { measures, groupBy: { kind: 'asset' }, ...parts }) as never,
    window: { kind: 'rolling', count: 1, unit: 'day' },
    scope: WHOLE_SCOPE,
    hours: null,
    follows: false,
    metrics: new Map(
      Object.entries(METRICS).map(([id, metric]) => [
        id,
        { id, assetId: 'a', assetName: 'Dryer 1', plantName: 'Quayside', zone: 'UTC', ...metric } as Metric,
      ]),
    ),
    facts: new Map(),
    view: { width: 480, zoomed: null, now: NOON },
  };
}

/** One group of an answer: its name and its value for each measure, or its values by period. */
export interface GivenGroup {
  readonly name: string;
  readonly values: readonly (number | null | readonly (number | null)[])[];
  readonly previous?: readonly (number | null)[];
  readonly coverage?: number;
  /** null = it stands for several assets. */
  readonly assetId?: string | null;
}

/** The answer with these groups; periods end at noon, a day each. */
export function groupedAnswer(
  groups: readonly GivenGroup[],
  units: readonly string[] = ['kWh'],
  part: Partial<QueryAnswer> = {},
): QueryAnswer {
  const first = groups[0]?.values[0];
  const n = Array.isArray(first) ? first.length : 1;
  const start = Array.from({ length: n }, (_, i) => NOON - (n - i) * DAY);
  return {
    window: { start: start[0], end: NOON },
    zone: 'UTC',
    now: NOON,
    units,
    start,
    end: start.map((at) => at + DAY),
    names: null,
    cells: null,
    groups: groups.map(({ name, values, previous = [], coverage = 1, assetId = name }, g) => ({
      name,
      assetId,
      measures: values.map((given, m): MeasureValues => {
        const all = Array.isArray(given) ? (given as (number | null)[]) : [given as number | null];
        return {
          metricIds: [`${g} ${m}`],
          perMetricIds: [],
          withinIds: [],
          values: all,
          coverage: all.map((value) => (value === null ? 0 : coverage)),
          samples: all.map((value) => (value === null ? 0 : 60)),
          levels: null,
          partial: false,
          asOf: NOON - 60_000,
          previous: previous[m] ?? null,
          provenance: null,
        };
      }),
    })),
    ...part,
  };
}
