import { NO_LEVELS, type Watch } from '@vivid-beacon/core';

/** What a test does not say of a metric. */
export const DEFAULT_METRIC = {
  key: 'key',
  unit: '',
  ucum: null,
  kind: 'level',
  origin: 'samples',
  period: null,
  intervalMs: 60_000,
  maxGapMs: 600_000,
  rollover: null,
  decimals: 1,
  plausibleLow: null,
  plausibleHigh: null,
  retentionDays: null,
  stamped: 'start',
  cut: 'start',
  assetId: '1',
  assetName: 'Quayside',
  plantId: '1',
  plantName: 'Quayside',
  zone: 'Europe/London',
  last: null,
  health: { state: 'reporting', quietMs: 0, lagMs: null, flatMs: null },
};

/** On watch when nothing needs attention. */
export const QUIET_WATCH: Watch = {
  now: 0,
  plants: [{ id: '1', name: 'Quayside', zone: 'UTC' }],
  alarms: [],
  alarmCounts: [],
  flags: [],
  flagCounts: {},
  indicators: [],
  indicatorCounts: {},
  silent: { feeds: [], count: {} },
  rulesOn: {},
};

/** On watch with what a test gives, and what the server counts of it. */
export function watchOf(part: Partial<Watch>): Watch {
  const given = { ...QUIET_WATCH, ...part };
  const { alarms, flags, indicators, now } = given;
  const flagCounts: Record<string, { late: number; later: number }> = {};
  for (const { plantId, dueAt } of flags) {
    const plant = (flagCounts[plantId] ??= { late: 0, later: 0 });
    plant[dueAt < now ? 'late' : 'later'] += 1;
  }
  const indicatorCounts: Record<string, { -readonly [Level in keyof typeof NO_LEVELS]: number }> = {};
  for (const { plantId, reading } of indicators) {
    (indicatorCounts[plantId] ??= { ...NO_LEVELS })[reading.level] += 1;
  }
  const alarmCounts = alarms.map(({ plantId, state, level, returnedAt }) => ({
    plantId,
    state,
    level,
    stands: returnedAt === null,
    n: 1,
  }));
  return { ...given, alarmCounts, flagCounts, indicatorCounts, ...part };
}
