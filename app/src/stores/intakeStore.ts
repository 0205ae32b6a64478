import { createStore } from 'zustand';
import type { FinishOrder, Intake, MetricEffect, CorrectionChoice } from '@vivid-beacon/core';
import {
  isTimePart,
  type Balance,
  type ColumnPart,
  type LayoutCorrection,
} from '@vivid-beacon/core/src/intakeFiles';
import type { IntakeCommand, IntakeEvent } from '../workers/intakeMessages';
import type { FileScan } from '../workers/scanFile';
import { firstBytes, isSheet } from '../workers/sources/fileBytes';
import {
  assetColumnOf,
  carriedPlans,
  proposals,
  type ColumnPlan,
  type IntakeOrder,
  type Plans,
} from './intakePlans';

/** How the last file of this shape was read, and which it was. */
export interface Mapping {
  readonly correct: LayoutCorrection;
  readonly plans: Plans;
  readonly zone: string;
  readonly fileName: string;
  readonly usedAt: number;
}

export interface Finished {
  readonly intake: Intake;
  readonly look: FileScan;
}

/** A file that is with the server but not stored yet. */
export interface SentFile {
  readonly intakeId: string;
  readonly parts: number;
  readonly balance: Balance;
  readonly effects: readonly MetricEffect[];
}

export type IntakeStep = 'choose' | 'check' | 'reading' | 'confirm' | 'storing' | 'done';
export interface IntakeState {
  readonly step: IntakeStep;
  /** Files still to come after this one. */
  readonly queue: readonly File[];
  readonly done: readonly Finished[];
  readonly file: File | null;
  readonly sheet: string | null;
  readonly look: FileScan | null;
  /** The file is looked at, for the first time or again after a correction. */
  readonly looking: boolean;
  /** null where nothing in the file tells its shape from that of others: it is not remembered. */
  readonly shape: string | null;
  /** What a person has corrected. */
  readonly correct: LayoutCorrection;
  /** Zone of times without an offset. */
  readonly zone: string;
  readonly plans: Plans;
  /** The file from which corrections and plans come; null = they are proposals. */
  readonly remembered: Pick<Mapping, 'fileName' | 'usedAt'> | null;
  readonly progress: { readonly share: number; readonly rows: number; readonly refused: number };
  readonly sent: SentFile | null;
  readonly finished: Finished | null;
  readonly error: string | null;
  readonly actions: {
    readonly choose: (files: readonly File[]) => void;
    readonly next: () => void;
    readonly chooseSheet: (sheet: string) => void;
    readonly correctLayout: (part: LayoutCorrection) => void;
    readonly setPart: (column: number, part: ColumnPart) => void;
    readonly setZone: (zone: string) => void;
    readonly plan: (key: string, plan: ColumnPlan) => void;
    readonly planAll: (make: (key: string) => ColumnPlan) => void;
    readonly read: (order: IntakeOrder & { readonly formToken: string }) => void;
    /** Stores what was sent. */
    readonly finish: (corrections: CorrectionChoice) => void;
    readonly cancel: () => void;
    /** Ends a look at a file; what was known before stays. */
    readonly stopLooking: () => void;
    readonly dispose: () => void;
  };
}

type WorkerLike = Pick<Worker, 'postMessage' | 'terminate'> & {
  onmessage: ((event: MessageEvent<IntakeEvent>) => void) | null;
};

interface IntakeParts {
  /** Starts the worker that reads a kind of file. */
  readonly makeWorker: (kind: 'text' | 'sheet') => WorkerLike;
  /** How the last file of a shape was read; null without one. */
  readonly recall: (shape: string) => Promise<Mapping | null>;
  readonly finish: (intakeId: string, order: FinishOrder) => Promise<{ readonly intake: Intake }>;
  readonly takeBack: (intakeId: string) => Promise<unknown>;
  readonly zone: string;
  readonly now: () => number;
}

/**
 * What of a person's corrections holds for the next file of the shape: not the one time of all rows, not how many rows
 * lay above the headings, and not what was to hold where values met, which is asked anew.
 */
function forNextFile({ fixedTime, preambleRows, collisions, ...rest }: LayoutCorrection): LayoutCorrection {
  void [fixedTime, preambleRows, collisions];
  return rest;
}

const FRESH = {
  look: null,
  looking: true,
  shape: null,
  correct: {},
  plans: {},
  remembered: null,
  sent: null,
  finished: null,
  error: null,
  progress: { share: 0, rows: 0, refused: 0 },
} as const;

/** Intake of one or several files, one after another: look, check, read, confirm, result. */
export const createIntakeStore = ({ makeWorker, recall, finish, takeBack, zone, now }: IntakeParts) =>
  createStore<IntakeState>()((set, get) => {
    let worker: WorkerLike | null = null;
    let kind: 'text' | 'sheet' = 'text';
    let order: IntakeOrder | null = null;
    /** An intake that the server knows and that is not finished. */
    let open: string | null = null;
    /** Counts files, so that what is told of an earlier one is not taken for the present one. */
    let turn = 0;

    const ask = (message: IntakeCommand): void => {
      worker?.terminate();
      worker = makeWorker(kind);
      worker.onmessage = ({ data }) => void hear(data);
      worker.postMessage(message);
    };
    const look = (): void => {
      const { file, sheet, correct, zone: ofFile } = get();
      set({ looking: true, error: null, progress: FRESH.progress });
      ask({ kind: 'scan', file: file!, sheet, correct, zone: ofFile, now: now() });
    };
    const takeBackOpen = (): void => {
      if (open !== null) void takeBack(open).catch(() => undefined);
      open = null;
    };
    const begin = async (file: File, queue: readonly File[]): Promise<void> => {
      const mine = ++turn;
      worker?.terminate();
      takeBackOpen();
      set({ ...FRESH, file, queue, sheet: null, step: 'choose' });
      try {
        kind = isSheet(await firstBytes(file)) ? 'sheet' : 'text';
      } catch (error) {
        if (turn === mine) set({ looking: false, error: (error as Error).message });
        return;
      }
      if (turn === mine) look();
    };
    const looked = async (told: Extract<IntakeEvent, { kind: 'looked' }>): Promise<void> => {
      const mine = turn;
      const first = get().look === null && get().remembered === null;
      // The shape as it is recognised without help: so the next file of it is known before anything is corrected.
      const mapping = first && told.shape !== null ? await recall(told.shape).catch(() => null) : null;
      if (turn !== mine) return;
      if (first) set({ shape: told.shape });
      if (mapping) {
        const { correct, plans, zone: ofFile, fileName, usedAt } = mapping;
        set({ correct, plans, zone: ofFile, remembered: { fileName, usedAt } });
        look();
        return;
      }
      const { look: before, plans } = get();
      const proposed = proposals(told, assetColumnOf(told));
      set({
        step: 'check',
        looking: false,
        look: told,
        sheet: told.sheet,
        plans: carriedPlans(proposed, before ? proposals(before, assetColumnOf(before)) : {}, plans),
        progress: FRESH.progress,
      });
    };
    const hear = async (told: IntakeEvent): Promise<void> => {
      switch (told.kind) {
        case 'looked':
          return looked(told);
        case 'progress':
          set({ progress: told });
          return;
        case 'begun':
          open = told.intakeId;
          return;
        case 'sent': {
          const { intakeId, parts, balance, effects } = told;
          set({ sent: { intakeId, parts, balance, effects } });
          if (effects.some(({ corrected }) => corrected > 0)) set({ step: 'confirm' });
          else get().actions.finish('refuse');
          return;
        }
        case 'failed':
          open = null;
          set(({ look: seen }) => ({ step: seen ? 'check' : 'choose', looking: false, error: told.message }));
      }
    };
    return {
      ...FRESH,
      looking: false,
      step: 'choose',
      queue: [],
      done: [],
      file: null,
      sheet: null,
      zone,
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
          turn++;
          set({ ...FRESH, sheet });
          look();
        },
        correctLayout: (part) => {
          set(({ correct }) => ({ correct: { ...correct, ...part } }));
          look();
        },
        setPart: (column, part) => {
          const { look: seen, correct } = get();
          const parts: Record<number, ColumnPart> = { ...correct.parts, [column]: part };
          // One column dates the rows; what dated them before does not any more, nor does a column for a fixed time.
          if (part === 'time') {
            seen?.recognised.columns.forEach(({ index, part: before }) => {
              if (index !== column && isTimePart(before) && before !== 'clock') parts[index] = 'leftOut';
            });
          }
          const sameTime = part === 'time' ? { timeFormat: undefined, fixedTime: undefined } : {};
          set({ correct: { ...correct, ...sameTime, parts } });
          look();
        },
        setZone: (next) => {
          if (next === get().zone) return;
          set({ zone: next });
          if (get().look) look();
        },
        plan: (key, plan) => set(({ plans }) => ({ plans: { ...plans, [key]: plan } })),
        planAll: (make) => {
          const { look: seen } = get();
          if (seen) set({ plans: Object.fromEntries(seen.feeds.map(({ key }) => [key, make(key)])) });
        },
        read: ({ formToken, ...given }) => {
          const { file, sheet, look: seen, zone: ofFile } = get();
          order = given;
          set({ step: 'reading', error: null, progress: FRESH.progress, sent: null });
          ask({
            kind: 'read',
            file: file!,
            sheet,
            layout: seen!.recognised.layout,
            inOrder: seen!.inOrder,
            targets: given.targets,
            zone: ofFile,
            now: now(),
            formToken,
          });
        },
        finish: (corrections) => {
          const { sent, look: seen, shape, correct, zone: ofFile } = get();
          if (!sent || !order || !seen) return;
          set({ step: 'storing' });
          void finish(sent.intakeId, {
            batches: sent.parts,
            balance: sent.balance,
            columns: seen.recognised.columns.map(({ heading, part, note }) => ({ heading, part, note })),
            made: order.made,
            corrections,
            remember:
              shape === null
                ? null
                : { shape, correct: forNextFile(correct), plans: order.remembered, zone: ofFile },
          }).then(
            ({ intake }) => {
              open = null;
              const finished = { intake, look: seen };
              set(({ done }) => ({ step: 'done', finished, done: [...done, finished] }));
            },
            (error: unknown) => {
              takeBackOpen();
              set({ step: 'check', sent: null, error: (error as Error).message });
            },
          );
        },
        cancel: () => {
          worker?.terminate();
          takeBackOpen();
          set({ step: 'check', sent: null, error: 'Cancelled. Nothing from the file was stored.' });
        },
        stopLooking: () => {
          turn++;
          worker?.terminate();
          set(({ look: seen, file }) => ({ looking: false, file: seen ? file : null }));
        },
        dispose: () => {
          turn++;
          worker?.terminate();
          takeBackOpen();
        },
      },
    };
  });
