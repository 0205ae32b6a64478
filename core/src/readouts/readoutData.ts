import type { Asset } from '../api/assets';
import type { Metric } from '../api/metrics';
import type { TrendAnswer, TrendAsk } from '../api/readings';
import type { Query, QueryAnswer } from '../domain/query';
import type { NotesAnswer, NotesAsk } from '../logs/logNotes';
import type { Interval } from '../time/interval';
import type { BaseReadout } from '../board/choices';
import type { ShownReadout } from './shown';

/** The inputs of a form: a readout joined with its board, the metrics and assets it names, and the view. */
export interface ReadoutInputs<Choices = object> extends ShownReadout<BaseReadout & Choices> {
  /** The metrics it names and those of the focused asset. */
  readonly metrics: ReadonlyMap<string, Metric>;
  /** Assets whose attributes it needs, as far as loaded. */
  readonly facts: ReadonlyMap<string, Asset>;
  readonly view: ReadoutViewport;
}

/** The view of a readout. */
export interface ReadoutViewport {
  /** Width in px, which decides how densely a trend is read. 0 = not known yet. */
  readonly width: number;
  /** Zoomed stretch of the window: as times, or relative to a start event. */
  readonly zoomed: Interval | null;
  /** Rounded to the minute, ms. */
  readonly now: number;
}

/** A request to the server; with `isExtra`, the drawing does not wait for its answer. */
export type ReadingRequest =
  | { readonly kind: 'query'; readonly ask: Query; readonly isExtra?: boolean }
  | { readonly kind: 'trend'; readonly ask: TrendAsk; readonly isExtra?: boolean }
  | { readonly kind: 'notes'; readonly ask: NotesAsk; readonly isExtra?: boolean };
/** One answer per request, in order; undefined only for extras. */
export type ReadingAnswers = readonly (QueryAnswer | TrendAnswer | NotesAnswer | undefined)[];

/** Why nothing can be drawn although everything was loaded. */
export interface Problem {
  readonly problem: { readonly title: string; readonly text: string };
}

export const isProblem = (data: object): data is Problem => 'problem' in data;

/** Common to the data of every form: the stretch of time and the decimals. */
export interface ReadData {
  readonly window: Interval;
  readonly zone: string;
  readonly now: number;
  /** Decimals of its numbers. */
  readonly decimals: number;
}
