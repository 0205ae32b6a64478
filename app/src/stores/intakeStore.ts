import { createStore } from 'zustand';
import type { Intake, MetricKind } from '@vivid-beacon/core';
import {
  isArchive,
  type FileLayout,
  type FileTargets,
  type LayoutCorrection,
  type ReadCounts,
} from '@vivid-beacon/core/src/intakeFiles';
import type { IntakeAsk, IntakeTold, RememberedMapping } from '../workers/intakeMessages';
import type { Look } from '../workers/readFile';

/** What becomes of a column of the file, or of a name in its rows. */
export type ColumnPlan =
  | { readonly to: 'nothing' }
  | { readonly to: 'existing'; readonly metricId: string }
  | { readonly to: 'new'; readonly name: string; readonly unit: string; readonly kind: MetricKind };

/** By number of the column, or by name. */
export type Plans = Readonly<Record<string, ColumnPlan>>;

/** How the last file of this shape was read. */
export interface Mapping {
  readonly layout: FileLayout;
  readonly plans: Plans;
  readonly zone: string;
}

export interface Finished {
  readonly intake: Intake;
  readonly counts: ReadCounts;
}

export type IntakeStep = 'choose' | 'check' | 'reading' | 'storing' | 'done';

export interface IntakeState {
  readonly step: IntakeStep;
  /** Files still to come after this one. */
  readonly queue: readonly File[];
  readonly done: readonly Finished[];
  readonly file: File | null;
  readonly sheet: string | null;
  readonly look: Look | null;
  readonly shape: string;
  /** What a person has corrected. */
  readonly correct: LayoutCorrection;
  readonly plans: Plans;
  /** True when layout and plans come from the last file of this shape. */
  readonly remembered: boolean;
  readonly progress: { readonly share: number; readonly rows: number; readonly refused: number };
  readonly finished: Finished | null;
  readonly error: string | null;
  readonly actions: {
    readonly choose: (files: readonly File[]) => void;
    readonly next: () => void;
    readonly chooseSheet: (sheet: string) => void;
    readonly correctLayout: (part: LayoutCorrection) => void;
    readonly plan: (key: string, plan: ColumnPlan) => void;
    readonly planAll: (plan: (key: string, heading: string, unit: string | null) => ColumnPlan) => void;
    readonly read: (options: {
      targets: FileTargets;
      zone: string;
      now: number;
      formToken: string;
      remember: RememberedMapping | null;
    }) => void;
    readonly fail: (message: string) => void;
    readonly cancel: () => void;
    readonly dispose: () => void;
  };
}

type WorkerLike = Pick<Worker, 'postMessage' | 'terminate'> & {
  onmessage: ((event: MessageEvent<IntakeTold>) => void) | null;
};

interface IntakeParts {
  /** Starts the thread that reads a kind of file. */
  readonly makeWorker: (kind: 'text' | 'sheet') => WorkerLike;
  /** How the last file of a shape was read; null without one. */
  readonly recall: (shape: string) => Promise<Mapping | null>;
}

const FRESH = {
  look: null,
  shape: '',
  correct: {},
  plans: {},
  remembered: false,
  finished: null,
  error: null,
  progress: { share: 0, rows: 0, refused: 0 },
} as const;

/** Intake of one or several files, one after another: look, check, read, result. */
export const createIntakeStore = ({ makeWorker, recall }: IntakeParts) =>
  createStore<IntakeState>()((set, get) => {
    let worker: WorkerLike | null = null;
    let kind: 'text' | 'sheet' = 'text';
    const ask = (message: IntakeAsk): void => {
      worker?.terminate();
      worker = makeWorker(kind);
      worker.onmessage = ({ data }) => void hear(data);
      worker.postMessage(message);
    };
    const look = (): void => {
      const { file, sheet, correct } = get();
      ask({ kind: 'look', file: file!, sheet, correct });
    };
    const begin = async (file: File, queue: readonly File[]): Promise<void> => {
      set({ ...FRESH, file, queue, sheet: null, step: 'choose' });
      kind = isArchive(new Uint8Array(await file.slice(0, 4).arrayBuffer())) ? 'sheet' : 'text';
      if (get().file === file) look();
    };
    const hear = async (told: IntakeTold): Promise<void> => {
      switch (told.kind) {
        case 'looked': {
          const first = get().shape === '';
          const mapping = first ? await recall(told.shape).catch(() => null) : null;
          // The shape as it is recognised without help: so the next file of it is known before anything is corrected.
          if (first) set({ shape: told.shape });
          if (mapping) {
            set({ correct: correctionOf(mapping.layout), plans: mapping.plans, remembered: true });
            look();
            return;
          }
          set({
            step: 'check',
            look: told,
            sheet: told.sheet,
            plans: plansFor(told, get().look, get().plans),
            error: null,
            progress: FRESH.progress,
          });
          return;
        }
        case 'progress':
          set({ progress: told });
          return;
        case 'storing':
          set({ step: 'storing' });
          return;
        case 'done':
          set(({ done }) => ({ step: 'done', finished: told, done: [...done, told] }));
          return;
        case 'failed':
          set(({ look: seen }) => ({ step: seen ? 'check' : 'choose', error: told.message }));
      }
    };
    return {
      ...FRESH,
      step: 'choose',
      queue: [],
      done: [],
      file: null,
      sheet: null,
      actions: {
        choose: ([first, ...rest]) => {
          set({ done: [] });
          if (first) void begin(first, rest);
        },
        next: () => {
          const [first, ...rest] = get().queue;
          if (first) void begin(first, rest);
        },
        chooseSheet: (sheet) => {
          set({ ...FRESH, sheet });
          look();
        },
        correctLayout: (part) => {
          set(({ correct }) => ({ correct: { ...correct, ...part } }));
          look();
        },
        plan: (key, plan) => set(({ plans }) => ({ plans: { ...plans, [key]: plan } })),
        planAll: (make) => {
          const { look: seen } = get();
          if (!seen) return;
          set({
            plans: Object.fromEntries(
              feedsOf(seen).map(({ key, heading, unit }) => [key, make(key, heading, unit)]),
            ),
          });
        },
        read: (options) => {
          const { file, sheet, look: seen } = get();
          set({ step: 'reading', error: null, progress: FRESH.progress });
          ask({ kind: 'read', file: file!, sheet, layout: seen!.recognised.layout, ...options });
        },
        fail: (message) => set({ error: message }),
        cancel: () => {
          worker?.terminate();
          set({ step: 'check', error: 'Cancelled. Nothing of the file was taken.' });
        },
        dispose: () => worker?.terminate(),
      },
    };
  });

/** What of a file can feed a metric: its number columns, or the names in its rows. */
export function feedsOf({ recognised }: Look): { key: string; heading: string; unit: string | null }[] {
  const { layout, columns, names } = recognised;
  if (layout.shape === 'samples') return names.map(({ name, unit }) => ({ key: name, heading: name, unit }));
  return layout.blocks
    .flatMap(({ valueColumns }) => valueColumns)
    .map((index) => ({ key: String(index), heading: columns[index].heading, unit: columns[index].unit }));
}

/**
 * Everything becomes a new metric of its heading until a person says otherwise. Where the layout is corrected, what
 * nobody has touched follows the headings; what somebody has chosen stays.
 */
function plansFor(look: Look, before: Look | null, plans: Plans): Plans {
  const untouched = before ? proposals(before) : {};
  const proposed = proposals(look);
  return Object.fromEntries(
    Object.entries(proposed).map(([key, proposal]) => [
      key,
      Object.hasOwn(plans, key) && !isSame(plans[key], untouched[key]) ? plans[key] : proposal,
    ]),
  );
}

function proposals(look: Look): Plans {
  return Object.fromEntries(
    feedsOf(look).map(({ key, heading, unit }) => [
      key,
      { to: 'new', name: heading, unit: unit ?? '', kind: kindFor(unit) },
    ]),
  );
}

function isSame(a: ColumnPlan, b: ColumnPlan | undefined): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

/** A guess at the kind that a person can change: quantities of energy, weight and volume are amounts. */
function kindFor(unit: string | null): MetricKind {
  return unit !== null && /^(k|M|G)?(Wh|g|J)$|^(t|L|l|m3|m³|kg|pieces|pcs|reads)$/.test(unit)
    ? 'amount'
    : 'level';
}

/** What of the last layout holds for the next file: rows above the headings may be more or fewer. */
function correctionOf({
  blocks,
  separator,
  decimal,
  headingRows,
  shape,
  ...rest
}: FileLayout): LayoutCorrection {
  const { timeFormat, repeatedHour, nameColumns } = rest;
  const timeColumn = blocks[0]?.timeColumn;
  return { separator, decimal, headingRows, shape, timeFormat, repeatedHour, nameColumns, timeColumn };
}
