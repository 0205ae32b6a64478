import type { FinishOrder, MetricEffect } from '@vivid-beacon/core';
import { TextEncoder } from 'node:util';
import {
  emptyBalance,
  readRows,
  type LayoutCorrection,
  type Separator,
} from '@vivid-beacon/core/src/intakeFiles';
import { createIntakeStore, type Mapping } from '../stores/intakeStore';
import type { IntakeCommand, IntakeEvent } from '../workers/intakeMessages';
import { scanFile, type FileScan } from '../workers/scanFile';
import { shapeOf } from '../workers/shapeOf';
import { rowsAtHand } from '../workers/sources/source';

// The stand-in for a browser lacks it; hashing a shape needs it.
Object.assign(globalThis, { TextEncoder });

export const INTAKE_NOW = Date.UTC(2026, 10, 20);

/** Scans a table given as text, as the worker that reads files does. */
export function lookAtText(
  text: string,
  correct: LayoutCorrection = {},
  separator: Separator = ';',
  zone = 'UTC',
): Promise<FileScan> {
  const rows = readRows(text, separator);
  const source = {
    encoding: 'UTF-8',
    counted: 'line' as const,
    sheets: [],
    sheet: null,
    separator,
    headings: null,
    parts: {},
    ...rowsAtHand(
      rows,
      rows.map((_, i) => i + 1),
    ),
  };
  return scanFile(source, { correct, zone, latest: INTAKE_NOW, progress: () => undefined });
}

interface StandInOptions {
  readonly recall?: (shape: string) => Promise<Mapping | null>;
  readonly effects?: readonly MetricEffect[];
  readonly finish?: () => Promise<never>;
}

/** An intake store whose worker really scans a text and sends nothing to any server. */
export async function standInIntake(text: string, { recall, effects = [], finish }: StandInOptions = {}) {
  const asked: IntakeCommand[] = [];
  const finished: [string, FinishOrder][] = [];
  const takenBack: string[] = [];
  const store = createIntakeStore({
    recall: recall ?? (async () => null),
    zone: 'UTC',
    now: () => INTAKE_NOW,
    takeBack: async (id) => takenBack.push(id),
    finish: async (id, order) => {
      finished.push([id, order]);
      if (finish) await finish();
      return { intake: { id } as never };
    },
    makeWorker: () => {
      const worker = {
        onmessage: null as ((event: MessageEvent<IntakeEvent>) => void) | null,
        terminate: () => undefined,
        postMessage: (ask: IntakeCommand) => {
          asked.push(ask);
          const tell = (told: IntakeEvent): void => worker.onmessage?.({ data: told } as MessageEvent);
          if (ask.kind === 'scan') {
            void lookAtText(text, ask.correct, ask.correct.separator ?? undefined).then((look) =>
              tell({ kind: 'looked', shape: shapeOf(look), ...look }),
            );
            return;
          }
          queueMicrotask(() => {
            tell({ kind: 'begun', intakeId: '9' });
            tell({ kind: 'sent', intakeId: '9', parts: 1, balance: emptyBalance(), effects });
          });
        },
      };
      return worker;
    },
  });
  const settle = async (): Promise<void> => {
    for (let i = 0; i < 100; i++) {
      await new Promise((resolve) => setTimeout(resolve, 10));
      const { looking, step } = store.getState();
      if (i > 1 && !looking && step !== 'reading' && step !== 'storing') return;
    }
  };
  const file = new File([text], 'gas.csv');
  // The stand-in for a browser has no bytes of files.
  file.slice = () => ({ arrayBuffer: async () => new TextEncoder().encode('Time').buffer }) as Blob;
  store.getState().actions.choose([file]);
  await settle();
  return { store, asked, finished, takenBack, settle };
}
