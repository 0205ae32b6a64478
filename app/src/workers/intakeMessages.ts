import type { Intake } from '@vivid-beacon/core';
import type {
  FileLayout,
  FileTargets,
  LayoutCorrection,
  ReadCounts,
} from '@vivid-beacon/core/src/intakeFiles';
import type { Look } from './readFile';

/** What is remembered for the next file of this shape. */
export interface RememberedMapping {
  readonly shape: string;
  readonly layout: FileLayout;
  readonly plans: object;
  readonly zone: string;
}

/** What the screen asks of the intake worker. */
export type IntakeAsk =
  | {
      readonly kind: 'look';
      readonly file: File;
      readonly sheet: string | null;
      readonly correct: LayoutCorrection;
    }
  | {
      readonly kind: 'read';
      readonly file: File;
      readonly sheet: string | null;
      readonly layout: FileLayout;
      readonly targets: FileTargets;
      readonly zone: string;
      readonly now: number;
      readonly formToken: string;
      readonly remember: RememberedMapping | null;
    };

/** What the worker tells. */
export type IntakeTold =
  | ({ readonly kind: 'looked'; readonly shape: string } & Look)
  | { readonly kind: 'progress'; readonly share: number; readonly rows: number; readonly refused: number }
  | { readonly kind: 'storing' }
  | { readonly kind: 'done'; readonly intake: Intake; readonly counts: ReadCounts }
  | { readonly kind: 'failed'; readonly message: string };
