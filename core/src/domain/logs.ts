/** One entry of the stop log. Times in ms. */
export interface StopEntry {
  readonly id: string;
  readonly assetId: string;
  readonly assetName: string;
  readonly plantName: string;
  readonly zone: string;
  readonly start: number;
  /** null while it is still stopped. */
  readonly end: number | null;
  readonly category: string;
  readonly reason: string;
  readonly note: string;
  readonly enteredBy: string;
}

/** Stops of a stretch of time, with what they add up to. */
export interface StopLog {
  readonly entries: readonly StopEntry[];
  /** ms stopped by asset and reason; overlapping stops of an asset count once. */
  readonly byReason: readonly { readonly reason: string; readonly stops: number; readonly ms: number }[];
  readonly totalMs: number;
  readonly now: number;
}

/** What a status means on a desk. */
export interface StatusKind {
  readonly status: string;
  /** The clock stands while the job is in it, for example while the customer has the ball. */
  readonly stopsClock: boolean;
  readonly endsJob: boolean;
}

/** One entry of the job log. Times in ms. */
export interface JobEntry {
  readonly id: string;
  readonly assetId: string;
  readonly assetName: string;
  readonly zone: string;
  readonly number: string;
  readonly category: string;
  readonly customer: string;
  readonly owner: string;
  readonly fields: Readonly<Record<string, string | number>>;
  readonly history: readonly { readonly at: number; readonly status: string; readonly by: string }[];
  readonly open: boolean;
  /** Time in our own statuses and in working hours, ms. */
  readonly workingMs: number;
  /** From first to last status (or now), ms. */
  readonly elapsedMs: number;
}

export const REMARK_KINDS = ['reason', 'abnormal', 'note'] as const;
export type RemarkKind = (typeof REMARK_KINDS)[number];

/** A remark on a stretch of time of an asset. */
export interface StretchRemark {
  readonly id: string;
  readonly assetId: string;
  readonly start: number;
  readonly end: number;
  readonly kind: RemarkKind;
  readonly text: string;
  readonly author: string;
  readonly writtenAt: number;
}
