import * as yup from 'yup';
import { taggedUnion, type TypeOf } from '../schemas/shape';
import { WINDOW_UNITS } from './windowUnit';

const count = yup.number().integer().min(1).max(1000).required();
const unit = yup.string().oneOf(WINDOW_UNITS).required();
const localTime = yup.string().max(40).required();
const current = yup.boolean().required();

/**
 * The stretch of time looked at.
 * - `rolling`: the last `count` units up to now.
 * - `periods`: the last `count` whole calendar periods, with the current one (unfinished) or without.
 * - `next`: the `count` calendar periods to come, after the current one or beginning with it.
 * - `toDate`: from the start of the current period to now.
 * - `absolute`: between two local wall-clock times, end excluded.
 */
export const windowSchema = taggedUnion('Window', 'kind', {
  rolling: { count, unit },
  periods: { count, unit, current },
  next: { count, unit, current },
  toDate: { unit },
  absolute: { start: localTime, end: localTime },
});
export type WindowSpec = TypeOf<typeof windowSchema>;
