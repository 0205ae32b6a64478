import type { FileLayout, Intake, Recognised } from '@vivid-beacon/core';

/** Where the numbers of a column go. */
export interface TargetColumn {
  readonly index: number;
  readonly heading: string;
  readonly metricId: string;
}

/** What the screen asks of the intake worker. */
export type IntakeAsk =
  | { readonly kind: 'look'; readonly file: File; readonly correct: Partial<FileLayout> }
  | {
      readonly kind: 'read';
      readonly file: File;
      readonly layout: FileLayout;
      readonly targets: readonly TargetColumn[];
      readonly zone: string;
      readonly now: number;
      readonly formToken: string;
    };

/** What the worker tells. */
export type IntakeTold =
  | { readonly kind: 'looked'; readonly recognised: Recognised; readonly encoding: string }
  | { readonly kind: 'progress'; readonly share: number; readonly rows: number; readonly refused: number }
  | {
      readonly kind: 'done';
      readonly intake: Intake;
      readonly blankCells: number;
      readonly repeatedHour: number;
    }
  | { readonly kind: 'failed'; readonly message: string };
