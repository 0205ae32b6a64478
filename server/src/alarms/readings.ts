import type { RehearsalOrder } from '@vivid-beacon/core';
import { reading } from '../readings/reading';
import { learnUsual, type ToLearn } from './learn';
import { rehearseOtherLimits, rehearseRule } from './rehearsal';

const unbounded = { unbounded: true };

export const rehearsalReading = reading(
  'rehearsal',
  ({ db, now }, { days, ...draft }: RehearsalOrder) => rehearseRule(db, draft, days, now),
  unbounded,
);
export const otherLimitsReading = reading(
  'otherLimits',
  ({ db, now }, { days, ...draft }: RehearsalOrder) => rehearseOtherLimits(db, draft, days, now),
  unbounded,
);
export const learningReading = reading('learning', ({ db }, ask: ToLearn) => learnUsual(db, ask), unbounded);
