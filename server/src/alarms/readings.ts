import type { RehearsalOrder } from '@vivid-beacon/core';
import { readingHandler } from '../readings/readingHandler';
import { learnUsual, type ToLearn } from './learn';
import { rehearseOtherLimits, rehearseRule } from './rehearsal';

const unbounded = { unbounded: true };

export const rehearsalReading = readingHandler(
  'rehearsal',
  ({ db, now }, { days, ...draft }: RehearsalOrder) => rehearseRule(db, draft, days, now),
  unbounded,
);
export const otherLimitsReading = readingHandler(
  'otherLimits',
  ({ db, now }, { days, ...draft }: RehearsalOrder) => rehearseOtherLimits(db, draft, days, now),
  unbounded,
);
export const learningReading = readingHandler(
  'learning',
  ({ db }, ask: ToLearn) => learnUsual(db, ask),
  unbounded,
);
