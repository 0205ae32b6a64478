import { flagEntity } from '../domain/flags';
import { ALARM_STATES } from '../alarms/lifecycle';
import { RULE_LEVELS } from '../schemas/alarmRule';
import { amount, dictionary, list, oneOf, shape, text, truth, type TypeOf, named } from '../schemas/shape';
import { alarm } from './alarms';
import { contracts, json } from './contract';
import { indicatorReadingSchema } from './indicators';
import { metric } from './metrics';

export const silentFeedsSchema = named(
  'SilentFeeds',
  shape({
    feeds: list(metric),
    /** How many there are in all, by plant. */
    count: dictionary(amount()),
  }),
);
/** Silent feeds: the first hundred, those watched by alarm rules first. */
export type SilentFeeds = TypeOf<typeof silentFeedsSchema>;

const alarmCount = shape({
  plantId: text(),
  state: oneOf(ALARM_STATES),
  level: oneOf(RULE_LEVELS),
  /** Whether its condition is met now. */
  stands: truth(),
  n: amount(),
});
/** Number of alarms of a plant with the same state and level. */
export type AlarmCount = TypeOf<typeof alarmCount>;

const levelCounts = shape({ clear: amount(), caution: amount(), breach: amount(), nodata: amount() });
/** Number on each level. */
export type LevelCounts = TypeOf<typeof levelCounts>;

const watch = shape({
  now: amount(),
  plants: list(shape({ id: text(), name: text(), zone: text() })),
  /** Those that need a person first, most serious first; a limited number. */
  alarms: list(alarm),
  /** All that stand. */
  alarmCounts: list(alarmCount),
  /** Overdue ones, then the caller's, then others; a limited number. */
  flags: list(flagEntity),
  /** All that are open, by plant. */
  flagCounts: dictionary(shape({ late: amount(), later: amount() })),
  /** Worst first; a limited number. */
  indicators: list(indicatorReadingSchema),
  /** How many there are on each level, by plant. */
  indicatorCounts: dictionary(levelCounts),
  silent: silentFeedsSchema,
  /** Number of alarm rules that cannot trip while a metric is silent, by its id. */
  rulesOn: dictionary(amount()),
});
/** Everything On watch shows. */
export type Watch = TypeOf<typeof watch>;

export const watchApi = contracts({
  'GET /api/on-watch': {
    access: 'viewer',
    summary: 'Everything that needs a person now.',
    answer: json(
      watch,
      'active alarms, open flags, worst indicators, silent feeds: some tens of each, with the totals',
    ),
  },
});
