import type { MadeWithFile, MetricEffect } from '@vivid-beacon/core';
import type { Balance, FileLayout, FileTargets, LayoutCorrection } from '@vivid-beacon/core/src/intakeFiles';
import type { FileScan } from './scanFile';

/** A metric created together with its first samples, in one transaction. */
export type NewMetricOfFile = MadeWithFile['metrics'][number];
/** An asset created with its first metric. */
export type NewAssetOfFile = MadeWithFile['assets'][number];

/** Requests of the screen to the intake worker. */
export type IntakeCommand =
  | {
      readonly kind: 'scan';
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

/** Answers of the worker. */
export type IntakeEvent =
  | ({ readonly kind: 'looked'; readonly shape: string | null } & FileScan)
  | { readonly kind: 'progress'; readonly share: number; readonly rows: number; readonly refused: number }
  /** The server has registered the file: what was sent can be withdrawn under this id. */
  | { readonly kind: 'begun'; readonly intakeId: string }
  /** The server has all of the file; nothing of it is stored yet. */
  | {
      readonly kind: 'sent';
      readonly intakeId: string;
      readonly parts: number;
      readonly balance: Balance;
      readonly effects: readonly MetricEffect[];
    }
  | { readonly kind: 'failed'; readonly message: string };
