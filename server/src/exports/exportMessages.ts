import type { ExportPiece } from './formats';

/* What the answering thread and the one that writes a file say to each other. */

/** What the server sends to the thread that writes a file. */
export type ToWriter =
  | { readonly piece: ExportPiece }
  | { readonly end: true }
  /** The receiver has gone. */
  | { readonly stop: true }
  /** So many bytes were taken by the receiver. */
  | { readonly taken: number };

/** What the thread sends back. */
export type FromWriter = { readonly bytes: Uint8Array } | { readonly ready: true };
