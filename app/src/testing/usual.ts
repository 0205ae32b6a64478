/** What a test does not say of a metric. */
export const USUAL_METRIC = {
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
  assetId: '1',
  assetName: 'Quayside',
  plantId: '1',
  plantName: 'Quayside',
  zone: 'Europe/London',
  last: null,
  health: { state: 'reporting', quietMs: 0, lagMs: null, flatMs: null },
};

/** On watch when nothing needs anybody. */
export const QUIET_WATCH = {
  now: 0,
  plants: [{ id: '1', name: 'Quayside', zone: 'UTC' }],
  alarms: [],
  flags: [],
  indicators: [],
  silent: { feeds: [], count: {} },
  rulesOn: {},
};
