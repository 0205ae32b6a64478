import type { LevelsAsk } from '../api/readings';
import type { Interval } from '../time/interval';

/** Requests about the time of a drawing, made once its data has arrived. */
export interface AlongAsks {
  readonly window: Interval;
  /** Levels of the first line, if it has a band. */
  readonly levels: LevelsAsk | null;
  /** Asset whose remarks are shown; null = none. */
  readonly assetId: string | null;
  /** Whose alarms. */
  readonly alarms: readonly string[];
  /** Whose flags. */
  readonly flags: readonly string[];
}
