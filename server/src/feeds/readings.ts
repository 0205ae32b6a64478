import { readingHandler } from '../readings/readingHandler';
import { coverageByDay } from './coverageByDay';
import { readDegreeDays } from './degreeDays';

export const coverageReading = readingHandler('coverage', coverageByDay);
export const degreeDaysReading = readingHandler('degreeDays', readDegreeDays);
