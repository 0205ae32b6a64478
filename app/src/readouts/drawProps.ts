import type { Interval, Metric, Readout, ReadoutParts } from '@vivid-beacon/core';
import type { ReadoutValue, ReadData } from '@vivid-beacon/core/src/boards';

/** Props of a form's component. */
export interface DrawProps<Data extends ReadData> {
  readonly data: Data;
  /** As it was chosen, joined with the focus of its board. */
  readonly readout: Readout;
  readonly title: string;
  /** px. */
  readonly width: number;
  readonly metrics: ReadonlyMap<string, Metric>;
  /** Opens how a value was made. @param of the readout it belongs to, where that is a copy for one group. */
  readonly onOpen: (part: ReadoutValue, of?: Readout) => void;
  /** The stretch of time that is looked at instead of the whole window; null = the whole. */
  readonly zoomed: Interval | null;
  readonly onZoom: (stretch: Interval | null) => void;
  /** Looks at it with other choices, which are not saved. */
  readonly onTry: (choices: ReadoutParts) => void;
  /** Whether the drawing is stale because the last request failed. */
  readonly unread: boolean;
  /** Whether it is stale. */
  readonly old: boolean;
}
