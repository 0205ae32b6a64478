import { createStore } from 'zustand';
import {
  DAY_MS,
  SUMMARIES_OF_KIND,
  type Metric,
  type Readout,
  type ReadoutForm,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';

/** The parts of the sentence a readout is built with. */
export type Slot = 'summary' | 'metric' | 'per' | 'window' | 'bucket' | 'band' | 'look';

export interface DraftState {
  /** null until a metric is chosen. */
  readonly readout: Readout | null;
  readonly form: ReadoutForm;
  readonly open: Slot;
  readonly actions: DraftActions;
}

interface DraftActions {
  readonly chooseForm: (form: ReadoutForm) => void;
  readonly openSlot: (slot: Slot) => void;
  readonly chooseMetric: (metric: Metric) => void;
  readonly choosePer: (metric: Metric | null) => void;
  readonly change: (
    part: Partial<Pick<Readout, 'title' | 'window' | 'bucket' | 'band' | 'decimals'>>,
  ) => void;
  readonly chooseSummary: (summary: Readout['measure']['summary']) => void;
  readonly setRatio: (factor: number, unit: string | null) => void;
}

/** A store of its own for each time the editor is opened. `id` is the readout's id on the board. */
export const createReadoutDraftStore = (id: string, initial: Readout | null) =>
  createStore<DraftState>()((set) => ({
    readout: initial,
    form: initial?.form ?? 'gauge',
    open: initial ? 'band' : 'metric',
    actions: {
      chooseForm: (form) =>
        // A change of form keeps everything else.
        set(({ readout }) => ({ form, readout: readout && { ...readout, form } })),
      openSlot: (open) => set({ open }),
      chooseMetric: (metric) =>
        set(({ readout, form }) => ({
          readout: withMetric(readout ?? emptyReadout(id, form), metric),
          open: 'summary',
        })),
      choosePer: (metric) =>
        set(({ readout }) => ({
          readout: readout && {
            ...readout,
            measure: {
              ...readout.measure,
              per: metric && {
                metricId: metric.id,
                summary: SUMMARIES_OF_KIND[metric.kind][0],
                factor: readout.measure.per?.factor ?? 1,
                unit: readout.measure.per?.unit ?? null,
              },
            },
          },
        })),
      setRatio: (factor, unit) =>
        set(({ readout }) => ({
          readout: readout?.measure.per
            ? { ...readout, measure: { ...readout.measure, per: { ...readout.measure.per, factor, unit } } }
            : readout,
        })),
      chooseSummary: (summary) =>
        set(({ readout }) => ({
          readout: readout && { ...readout, measure: { ...readout.measure, summary } },
        })),
      change: (part) => set(({ readout }) => ({ readout: readout && { ...readout, ...part } })),
    },
  }));

function emptyReadout(
  id: string,
  form: ReadoutForm,
): Omit<Readout, 'measure'> & { measure: Readout['measure'] | null } {
  return { id, form, title: null, measure: null, window: null, bucket: null, band: null, decimals: null };
}

/** Another metric: its usual summary unless the present one makes sense for it too; the band is another's, so it goes. */
function withMetric(
  readout: Omit<Readout, 'measure'> & { measure: Readout['measure'] | null },
  metric: Metric,
): Readout {
  const usual = SUMMARIES_OF_KIND[metric.kind];
  const kept = readout.measure?.summary;
  const same = readout.measure?.metricId === metric.id;
  return {
    ...readout,
    window: readout.window ?? windowFor(metric),
    band: same ? readout.band : null,
    measure: {
      metricId: metric.id,
      summary: kept && usual.includes(kept) ? kept : usual[0],
      per: same ? (readout.measure?.per ?? null) : null,
    },
  };
}

/**
 * A first window with something in it: the board's own where the feed reports; else the last year that the
 * metric has samples of, because a file from the past shows nothing today.
 */
function windowFor(metric: Metric): WindowSpec | null {
  if (!metric.last || metric.health.state !== 'silent' || metric.intervalMs < DAY_MS / 2) return null;
  const end = new Date(metric.last.t + DAY_MS);
  const start = new Date(end);
  start.setUTCFullYear(end.getUTCFullYear() - 1);
  const write = (date: Date): string => `${date.toISOString().slice(0, 10)}T00:00`;
  return { kind: 'absolute', start: write(start), end: write(end) };
}

/** A first band around what is usual: Clear to the 75th percentile of past values, Caution to the 95th. */
export function firstBand(values: readonly number[], direction: TargetBand['direction']): TargetBand {
  const at = (share: number): number =>
    values.length === 0 ? 0 : values[Math.round((values.length - 1) * share)];
  const [low, high] = [at(0.02), at(0.98)];
  const digits = Math.max(
    0,
    2 - Math.floor(Math.log10(Math.max(1e-6, Math.abs(high - low) || Math.abs(high) || 1))),
  );
  const round = (x: number): number => Number(x.toFixed(Math.min(9, digits)));
  switch (direction) {
    case 'lower':
      return { direction, caution: round(at(0.75)), breach: round(at(0.95)), target: round(at(0.5)) };
    case 'higher':
      return { direction, caution: round(at(0.25)), breach: round(at(0.05)), target: round(at(0.5)) };
    case 'inside':
      return {
        direction,
        breachLow: round(at(0.03)),
        clearLow: round(at(0.15)),
        clearHigh: round(at(0.85)),
        breachHigh: round(at(0.97)),
        target: round(at(0.5)),
      };
  }
}
