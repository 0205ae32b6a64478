import type { LayoutCorrection } from '@vivid-beacon/core/src/intakeFiles';

/** What the product may ask before it takes anything. */
export type Topic =
  'time' | 'dayOrMonth' | 'century' | 'values' | 'collisions' | 'headings' | 'names' | 'rows';

/** One sample that must be there: series, time (UTC), value. */
export type Spot = readonly [series: string, time: string, value: number];

/**
 * What a careful person takes from a file, written down before the program was run on it. A series is named by the
 * words of its name columns and, unless it is the only value column beside them, the heading of its value column,
 * joined with " / ".
 */
export interface Careful {
  /** Such a person would not go on without asking about one of these. */
  readonly asks?: readonly Topic[];
  /** The answer, after which `takes` holds. */
  readonly answer?: LayoutCorrection;
  readonly takes?: {
    readonly series: number;
    readonly samples: number;
    readonly spots?: readonly Spot[];
    /** Value columns that may be taken as well: true numbers of little use. */
    readonly may?: readonly string[];
    /** Lines that must be refused, told as left out or told as repeated. */
    readonly refused?: number;
    readonly leftOut?: number;
    readonly repeated?: number;
  };
  /** Nothing can be taken, and these words say why. */
  readonly refuses?: RegExp;
}
