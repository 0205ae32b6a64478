import type { MetricKind } from '@vivid-beacon/core';
import type { Balance, FileLayout, FileTargets, LayoutCorrection } from '@vivid-beacon/core/src/intakeFiles';
import type { Look } from './lookAt';

/** What is remembered for the next file of this shape. */
export interface RememberedMapping {
  readonly shape: string;
  readonly correct: LayoutCorrection;
  readonly plans: object;
  readonly zone: string;
}

/** A metric that is made together with its first samples, in one transaction. */
export interface NewMetricOfFile {
  /** Stands in for the id of the metric in the parts of the file: "new-0". */
  readonly ref: string;
  /** An asset that is there, or the place in `assets` of one that is made. */
  readonly assetId: string | null;
  readonly asset: number | null;
  readonly name: string;
  readonly unit: string;
  readonly kind: MetricKind;
  readonly intervalMs: number;
  readonly decimals: number;
}

/** An asset that is made with the first metric it gets. */
export interface NewAssetOfFile {
  readonly name: string;
  /** Under an asset that is there, or one before it in the list; neither for a plant. */
  readonly parentId: string | null;
  readonly parent: number | null;
  readonly zone: string | null;
}

/** What is made with the samples of a file; metrics of which no value comes are not. */
export interface MadeWithFile {
  readonly assets: readonly NewAssetOfFile[];
  readonly metrics: readonly NewMetricOfFile[];
}

/** What the screen asks of the intake worker. */
export type IntakeAsk =
  | {
      readonly kind: 'look';
      readonly file: File;
      readonly sheet: string | null;
      readonly correct: LayoutCorrection;
      readonly zone: string;
      readonly now: number;
    }
  | {
      readonly kind: 'read';
      readonly file: File;
      readonly sheet: string | null;
      readonly layout: FileLayout;
      readonly inOrder: boolean;
      readonly targets: FileTargets;
      readonly zone: string;
      readonly now: number;
      readonly formToken: string;
    };

/** What the worker tells. */
export type IntakeTold =
  | ({ readonly kind: 'looked'; readonly shape: string | null } & Look)
  | { readonly kind: 'progress'; readonly share: number; readonly rows: number; readonly refused: number }
  /** The server knows of the file: what has been sent can be taken back under this id. */
  | { readonly kind: 'begun'; readonly intakeId: string }
  /** All of the file is with the server; nothing of it is stored yet. */
  | {
      readonly kind: 'sent';
      readonly intakeId: string;
      readonly parts: number;
      readonly balance: Balance;
      readonly effects: readonly MetricEffect[];
    }
  | { readonly kind: 'failed'; readonly message: string };

/** What storing the file would do to metrics that are there. */
export interface MetricEffect {
  readonly metricId: string;
  readonly name: string;
  readonly assetName: string;
  readonly plantName: string;
  readonly samples: number;
  /** Values stored already that the file gives otherwise. */
  readonly corrected: number;
  readonly unchanged: number;
}
