import { createStore } from 'zustand';
import {
  DAY_MS,
  MAX_MEASURES,
  SUMMARIES_OF_KIND,
  type IndicatorReading,
  type Measure,
  type Metric,
  type Readout,
  type ReadoutForm,
  type ReadoutParts,
  type Slot,
  type WindowSpec,
} from '@vivid-beacon/core';
import {
  asIndicator,
  changeForm,
  emptyReadout,
  formOf,
  hasMoreBands,
  takesAllMeasures,
  withMatchingChoices,
} from '@vivid-beacon/core/src/boards';

export interface DraftState {
  readonly readout: Readout;
  readonly open: Slot;
  /** Undo and redo stacks, the latest last. */
  readonly past: readonly Readout[];
  readonly future: readonly Readout[];
  readonly actions: DraftActions;
}

interface DraftActions {
  readonly chooseForm: (form: ReadoutForm) => void;
  readonly openSlot: (slot: Slot) => void;
  readonly chooseMetric: (metric: Metric) => void;
  readonly chooseIndicator: (indicator: IndicatorReading) => void;
  readonly addMeasure: (metric: Metric) => void;
  readonly removeMeasure: (at: number) => void;
  readonly changeMeasure: (at: number, change: (measure: Measure) => Measure) => void;
  /** What the form does not have is left out. */
  readonly change: (parts: ReadoutParts) => void;
  readonly chooseSummary: (summary: Measure['summary']) => void;
  readonly undo: () => void;
  readonly redo: () => void;
}

/** Follows no indicator: what is changed by hand is one's own. */
const OWN = { indicatorId: null } as const;

/** A store of its own for each time the editor is opened. `id` is the readout's id on the board. */
export const createReadoutDraftStore = (id: string, initial: Readout | null) =>
  createStore<DraftState>()((set) => {
    /** Every change is remembered; one that changes nothing is none. */
    const edit = (change: (readout: Readout) => Readout, open?: Slot): void =>
      set((state) => {
        const readout = change(state.readout);
        const where = open ?? state.open;
        if (readout === state.readout) return { open: where };
        return { readout, open: where, past: [...state.past, state.readout], future: [] };
      });
    const lead =
      (change: (measure: Measure) => Measure) =>
      (readout: Readout): Readout => {
        const [first, ...more] = readout.measures;
        return first ? { ...readout, ...OWN, measures: [change(first), ...more] } : readout;
      };
    return {
      readout: initial ?? emptyReadout(id, 'gauge'),
      open: initial ? 'band' : 'metric',
      past: [],
      future: [],
      actions: {
        // What was chosen when it was last of this form holds again.
        chooseForm: (form) =>
          set((state) => {
            const left = state.past.findLast((each) => each.form === form) ?? null;
            const readout = changeForm(state.readout, form, left);
            const [first] = formOf(form).slots;
            const open = formOf(form).slots.includes(state.open) ? state.open : first;
            if (readout === state.readout) return { open };
            return { readout, open, past: [...state.past, state.readout], future: [] };
          }),
        openSlot: (open) => set({ open }),
        chooseMetric: (metric) => edit((readout) => ({ ...withMetric(readout, metric), ...OWN }), 'summary'),
        // The title stays automatic, so that it follows the name of the indicator.
        chooseIndicator: (indicator) =>
          edit(
            (readout) => ({
              ...asIndicator({ ...readout, measures: [], groupBy: null }, indicator),
              title: null,
            }),
            'metric',
          ),
        addMeasure: (metric) =>
          edit((readout) =>
            readout.measures.length >= MAX_MEASURES ||
            (!takesAllMeasures(readout) && readout.measures.some(({ metricId }) => metricId === metric.id))
              ? readout
              : { ...readout, measures: [...readout.measures, measureOf(metric, readout.measures[0])] },
          ),
        removeMeasure: (at) =>
          edit((readout) => ({
            ...readout,
            measures: readout.measures.filter((_, i) => i !== at),
            ...(hasMoreBands(readout) && { moreBands: readout.moreBands.filter((_, i) => i !== at - 1) }),
          })),
        changeMeasure: (at, change) =>
          edit((readout) => ({
            ...readout,
            ...OWN,
            measures: readout.measures.map((measure, i) => (i === at ? change(measure) : measure)),
          })),
        chooseSummary: (summary) => edit(lead((measure) => ({ ...measure, summary }))),
        // A band of its own is not the indicator's any more.
        change: (parts) =>
          edit((readout) => withMatchingChoices(readout, 'band' in parts ? { ...OWN, ...parts } : parts)),
        undo: () =>
          set(({ readout, past, future }) =>
            past.length === 0
              ? {}
              : { readout: past[past.length - 1], past: past.slice(0, -1), future: [...future, readout] },
          ),
        redo: () =>
          set(({ readout, past, future }) =>
            future.length === 0
              ? {}
              : { readout: future[future.length - 1], future: future.slice(0, -1), past: [...past, readout] },
          ),
      },
    };
  });

/** A metric measured as another is, where that makes sense for its kind; else as is usual. */
function measureOf(metric: Metric, like: Measure | undefined): Measure {
  const usual = SUMMARIES_OF_KIND[metric.kind];
  return {
    metricId: metric.id,
    summary: like && usual.includes(like.summary) ? like.summary : usual[0],
    per: null,
  };
}

/** Another metric: the summary stays if it makes sense for it too; the band is another's, so it goes. */
function withMetric(readout: Readout, metric: Metric): Readout {
  const [first, ...more] = readout.measures;
  const same = first?.metricId === metric.id;
  const measure = measureOf(metric, first);
  const bands = { band: null, secondBand: null };
  return {
    ...(same ? readout : withMatchingChoices(readout, bands)),
    window: readout.window ?? windowFor(metric),
    measures: [
      { ...measure, per: same ? first.per : null },
      ...more.filter(({ metricId }) => metricId !== metric.id),
    ],
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
