/** The parts of the sentence a readout is built with. */
export type Slot =
  | 'metric'
  | 'summary'
  | 'per'
  | 'more'
  | 'group'
  | 'scope'
  | 'hours'
  | 'window'
  | 'bucket'
  | 'band'
  | 'compare'
  | 'appearance'
  | 'words';

/** Slots of a form that shows one value, or one per group. */
export const VALUE_SLOTS: readonly Slot[] = [
  'summary',
  'metric',
  'per',
  'more',
  'window',
  'group',
  'scope',
  'hours',
  'band',
  'compare',
  'appearance',
];

/** Slots of a form that shows values over time, with periods. */
export const TREND_SLOTS: readonly Slot[] = VALUE_SLOTS.flatMap((slot) =>
  slot === 'window' ? [slot, 'bucket'] : [slot],
);
