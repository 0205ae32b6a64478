import { reading } from '../readings/reading';
import { coverageByDay } from './coverageByDay';
import { readDegreeDays } from './degreeDays';

export const coverageReading = reading('coverage', coverageByDay);
export const degreeDaysReading = reading('degreeDays', readDegreeDays);
