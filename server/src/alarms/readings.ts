import type { CourseOrder, RehearsalOrder } from '@vivid-beacon/core';
import { readingHandler } from '../readings/readingHandler';
import { learnUsual, type ToLearn } from './learn';
import { readPeriods } from './readPeriods';
import { rehearseCourse, rehearseOtherLimits, rehearseRule } from './rehearsal';

const unbounded = { unbounded: true };

export const rehearsalReading = readingHandler(
  'rehearsal',
  (context, { days, ...draft }: RehearsalOrder) => rehearseRule(context, draft, days),
  unbounded,
);
export const otherLimitsReading = readingHandler(
  'otherLimits',
  (context, { days, ...draft }: RehearsalOrder) => rehearseOtherLimits(context, draft, days),
  unbounded,
);
export const courseReading = readingHandler(
  'rehearsedCourse',
  (context, { days, courseOf, columns, ...draft }: CourseOrder) =>
    rehearseCourse(context, draft, { days, courseOf, columns }),
  unbounded,
);
export const learningReading = readingHandler(
  'learning',
  ({ db }, ask: ToLearn) => learnUsual(db, ask),
  unbounded,
);
export const periodsReading = readingHandler('rulePeriods', readPeriods, unbounded);
