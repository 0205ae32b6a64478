import { flagEntity } from '../domain/flags';
import { amount, dictionary, list, shape, text, type TypeOf, named } from '../schemas/shape';
import { alarm } from './alarms';
import { contracts, json } from './contract';
import { indicatorReading } from './indicators';
import { metric } from './metrics';

export const silentFeeds = named(
  'SilentFeeds',
  shape({
    feeds: list(metric),
    /** How many there are in all, by plant. */
    count: dictionary(amount()),
  }),
);
/** Feeds that went quiet: the first hundred, those that alarm rules look at before others. */
export type SilentFeeds = TypeOf<typeof silentFeeds>;

const watch = shape({
  now: amount(),
  plants: list(shape({ id: text(), name: text(), zone: text() })),
  alarms: list(alarm),
  flags: list(flagEntity),
  indicators: list(indicatorReading),
  silent: silentFeeds,
  /** How many alarm rules see nothing while a metric is silent, by its id. */
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
      'alarms that stand, open flags, indicators with the worst first, metrics whose feed went quiet',
    ),
  },
});
