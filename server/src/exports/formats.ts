import type { ExportFormat } from '@vivid-beacon/core';

/* What files of samples there are. The libraries that write them are loaded in the thread that does. */

/** Samples of one metric, in order of time, with what every row of theirs says. */
export interface ExportPiece {
  readonly metric: string;
  readonly key: string;
  readonly asset: string;
  readonly plant: string;
  readonly zone: string;
  readonly unit: string;
  /** ms since the Unix epoch. */
  readonly t: Float64Array;
  /** NaN = missing. */
  readonly v: Float64Array;
  /** null = all good. */
  readonly q: Uint8Array | null;
}

/** Media types of the formats. */
export const EXPORT_TYPES: Readonly<Record<ExportFormat, string>> = {
  csv: 'text/csv; charset=utf-8',
  ndjson: 'application/x-ndjson; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
};
