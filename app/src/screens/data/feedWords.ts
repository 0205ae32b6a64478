import { BUCKET_WORDS, formatLength, type FeedState, type Level, type Metric } from '@vivid-beacon/core';

/** Which lamp a feed shows. */
export const LEVEL_OF_FEED: Readonly<Record<FeedState, Level>> = {
  reporting: 'clear',
  silent: 'nodata',
  never: 'nodata',
  flat: 'caution',
  outOfRange: 'caution',
  clockAhead: 'caution',
};

/** The problem of a feed in words. */
export function feedSentence({ health, origin, period }: Metric): string {
  if (origin === 'derived') return 'derived';
  if (origin === 'reference') return `by ${period && BUCKET_WORDS[period]}`;
  switch (health.state) {
    case 'never':
      return 'nothing has come yet';
    case 'silent':
      return `silent for ${formatLength(health.quietMs ?? 0)}`;
    case 'flat':
      return `the same value for ${formatLength(health.flatMs ?? 0)}`;
    case 'outOfRange':
      return 'the newest value lies outside the plausible range';
    case 'clockAhead':
      return "the sender's clock runs ahead";
    case 'reporting':
      return health.lagMs === null ? 'reports' : `reports, ${formatLength(health.lagMs)} behind`;
  }
}

/** Which feeds need a look first. */
export function feedRank({ origin, health }: Metric): number {
  if (origin !== 'samples') return 3;
  if (health.state === 'reporting') return 2;
  return health.state === 'never' ? 1 : 0;
}
