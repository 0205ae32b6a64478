import * as yup from 'yup';
import { shape, truth, type TypeOf } from '../schemas/shape';
import { contracts, json, nothing } from './contract';

const firstSteps = shape({
  /** Whether there is any of each. */
  plant: truth(),
  data: truth(),
  board: truth(),
  band: truth(),
  rule: truth(),
  /** Whether there is anybody besides the first administrator. */
  people: truth(),
  /** Whether the caller has put the list away. */
  away: truth(),
});
/** What has been set up so far: a plant, data, a board with readouts, a target band, an alarm rule, people. */
export type FirstSteps = TypeOf<typeof firstSteps>;

export const firstStepsApi = contracts({
  'GET /api/first-steps': {
    access: 'viewer',
    summary: 'What has been set up so far, for a person who begins.',
    answer: json(firstSteps),
  },
  'PUT /api/first-steps': {
    access: 'viewer',
    summary: 'Puts the list of first steps away for the caller, or brings it back.',
    body: yup.object({ away: yup.boolean().required() }).noUnknown(),
    answer: nothing,
  },
});
