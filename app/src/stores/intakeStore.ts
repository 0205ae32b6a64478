import { createStore } from 'zustand';
import type { FileLayout, Intake, MetricKind, Recognised } from '@vivid-beacon/core';
import type { IntakeAsk, IntakeTold, TargetColumn } from '../workers/intakeMessages';

export const MOST_FILE_BYTES = 100_000_000;

/** What becomes of a column of the file. */
export type ColumnPlan =
  | { readonly to: 'nothing' }
  | { readonly to: 'existing'; readonly metricId: string }
  | { readonly to: 'new'; readonly name: string; readonly unit: string; readonly kind: MetricKind };

export interface Finished {
  readonly intake: Intake;
  readonly blankCells: number;
  readonly repeatedHour: number;
}

export type IntakeStep = 'choose' | 'check' | 'reading' | 'done';

export interface IntakeState {
  readonly step: IntakeStep;
  readonly file: File | null;
  readonly recognised: Recognised | null;
  readonly encoding: string;
  /** What a person has corrected. */
  readonly correct: Partial<FileLayout>;
  readonly plans: Readonly<Record<number, ColumnPlan>>;
  readonly progress: { readonly share: number; readonly rows: number; readonly refused: number };
  readonly finished: Finished | null;
  readonly error: string | null;
  readonly actions: {
    readonly choose: (file: File) => void;
    readonly correctLayout: (part: Partial<FileLayout>) => void;
    readonly plan: (column: number, plan: ColumnPlan) => void;
    readonly read: (options: {
      targets: readonly TargetColumn[];
      zone: string;
      now: number;
      formToken: string;
    }) => void;
    readonly fail: (message: string) => void;
    readonly cancel: () => void;
    readonly dispose: () => void;
  };
}

type WorkerLike = Pick<Worker, 'postMessage' | 'terminate'> & {
  onmessage: ((event: MessageEvent<IntakeTold>) => void) | null;
};

/** One intake from choosing a file to its result. `makeWorker` starts the thread that reads it. */
export const createIntakeStore = (makeWorker: () => WorkerLike) =>
  createStore<IntakeState>()((set, get) => {
    let worker: WorkerLike | null = null;
    const ask = (message: IntakeAsk): void => {
      worker?.terminate();
      worker = makeWorker();
      worker.onmessage = ({ data }) => hear(data);
      worker.postMessage(message);
    };
    const hear = (told: IntakeTold): void => {
      switch (told.kind) {
        case 'looked':
          set({
            step: 'check',
            recognised: told.recognised,
            encoding: told.encoding,
            plans: firstPlans(told.recognised, get().plans),
            error: null,
          });
          return;
        case 'progress':
          set({ progress: told });
          return;
        case 'done':
          set({ step: 'done', finished: told });
          return;
        case 'failed':
          set(({ recognised }) => ({ step: recognised ? 'check' : 'choose', error: told.message }));
      }
    };
    return {
      step: 'choose',
      file: null,
      recognised: null,
      encoding: '',
      correct: {},
      plans: {},
      progress: { share: 0, rows: 0, refused: 0 },
      finished: null,
      error: null,
      actions: {
        choose: (file) => {
          set({
            file,
            step: 'choose',
            recognised: null,
            correct: {},
            plans: {},
            finished: null,
            error: null,
          });
          if (file.size > MOST_FILE_BYTES) {
            const size = Math.round(file.size / 1_000_000);
            set({
              error: `${file.name} has ${size} MB. A file may have at most 100 MB; split it and bring in the parts one after another. Nothing was taken.`,
            });
            return;
          }
          ask({ kind: 'look', file, correct: {} });
        },
        correctLayout: (part) => {
          const { file, correct } = get();
          const next = { ...correct, ...part };
          set({ correct: next });
          ask({ kind: 'look', file: file!, correct: next });
        },
        plan: (column, plan) => set(({ plans }) => ({ plans: { ...plans, [column]: plan } })),
        read: (options) => {
          const { file, recognised } = get();
          set({ step: 'reading', error: null, progress: { share: 0, rows: 0, refused: 0 } });
          ask({ kind: 'read', file: file!, layout: recognised!.layout, ...options });
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

/** Every number column becomes a new metric of its heading until a person says otherwise. */
function firstPlans(recognised: Recognised, before: IntakeState['plans']): Record<number, ColumnPlan> {
  return Object.fromEntries(
    recognised.columns
      .filter(({ numeric }) => numeric)
      .map(({ index, heading, unit }) => [
        index,
        before[index] ?? { to: 'new', name: heading, unit: unit ?? '', kind: 'level' as const },
      ]),
  );
}
