import type { TargetBand } from '../bands/targetBand';
import type { Bucket } from '../time/buckets';
import type { WindowSpec } from '../time/window';
import { SUMMARY_WORDS, type Summary } from './metric';

/** What is measured: one metric summarised, or one per another (sum over sum). */
export interface Measure {
  readonly metricId: string;
  readonly summary: Summary;
  readonly per: {
    readonly metricId: string;
    readonly summary: Summary;
    /** What the ratio is multiplied by; 100 for percent. */
    readonly factor: number;
    /** Unit of the ratio; null = upper unit / lower unit. */
    readonly unit: string | null;
  } | null;
}

export const READOUT_FORMS = ['gauge', 'lamp', 'figure', 'trend'] as const;
export type ReadoutForm = (typeof READOUT_FORMS)[number];

export const FORM_WORDS: Readonly<Record<ReadoutForm, string>> = {
  gauge: 'Gauge',
  lamp: 'Lamp',
  figure: 'Figure',
  trend: 'Trend',
};

/** One element of a board. */
export interface Readout {
  readonly id: string;
  readonly form: ReadoutForm;
  /** null = made from the choices. */
  readonly title: string | null;
  readonly measure: Measure;
  /** null = the board's window. */
  readonly window: WindowSpec | null;
  /** For a trend: summarised by local hour, day …; null = the samples themselves. */
  readonly bucket: Bucket | null;
  readonly band: TargetBand | null;
  /** null = chosen from the size of the numbers. */
  readonly decimals: number | null;
}

export const BOARD_FORMAT_VERSION = 1;

/** What a board holds, as it is stored and sent. */
export interface BoardDocument {
  readonly version: typeof BOARD_FORMAT_VERSION;
  readonly window: WindowSpec;
  readonly readouts: readonly Readout[];
}

export interface Board {
  readonly id: string;
  readonly title: string;
  readonly document: BoardDocument;
  /** Goes up by one at every change; a save must name the one it started from. */
  readonly revision: number;
  readonly ownerName: string;
  readonly updatedAt: number;
}

/** Title of a readout from its choices: "Gas used per dried weight" or "Bed temperature, mean". */
export function automaticTitle(
  measure: Measure,
  metric: { readonly name: string; readonly assetName: string },
  per: { readonly name: string } | null,
): string {
  if (per) return `${metric.name} per ${lowerFirst(per.name)}`;
  const usual = measure.summary === 'mean' || measure.summary === 'sum' || measure.summary === 'last';
  const name = `${metric.assetName} ${lowerFirst(metric.name)}`;
  return usual ? name : `${name}, ${SUMMARY_WORDS[measure.summary]}`;
}

/** "Bed temperature" → "bed temperature", but "CO2" stays. */
function lowerFirst(text: string): string {
  return /^[A-Z][a-z]/.test(text) ? text[0].toLowerCase() + text.slice(1) : text;
}
