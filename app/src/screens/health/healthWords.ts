import {
  formatLength,
  formatMoment,
  formatNumber,
  formatWindow,
  type AlarmHealth,
  type HealthCheck,
} from '@vivid-beacon/core';

type Key = HealthCheck['key'];

const NAMES: Readonly<Record<Key, string>> = {
  perDay: 'Alarms a day',
  perTenMinutes: 'Alarms in ten minutes, on average',
  peak: 'Alarms in the worst ten minutes',
  busyShare: 'Ten-minute periods with more than ten alarms',
  floodShare: 'Time in flood',
  topTenShare: 'Share of the ten most frequent rules',
  chattering: 'Chattering rules',
  stale: 'Alarms active for more than a day',
  highShare: 'Share of high priority',
  mediumShare: 'Share of medium priority',
};

const SHARES: ReadonlySet<Key> = new Set([
  'busyShare',
  'floodShare',
  'topTenShare',
  'highShare',
  'mediumShare',
]);

function valueText(key: Key, value: number): string {
  if (SHARES.has(key)) {
    const percent = value * 100;
    return `${formatNumber(percent, Number.isInteger(percent) || percent >= 10 ? 0 : 1)} %`;
  }
  return formatNumber(value, Number.isInteger(value) ? 0 : value < 10 ? 2 : 0);
}

/** A figure of alarm health in words: what it is, its value, and its guideline. */
export function checkWords({ key, value, good, most }: HealthCheck): {
  name: string;
  value: string;
  guide: string;
} {
  const upTo = good === 0 ? 'none' : `at most ${valueText(key, good)}`;
  return {
    name: NAMES[key],
    value: valueText(key, value),
    guide: most > good ? `${upTo}, manageable up to ${valueText(key, most)}` : upTo,
  };
}

/** Figures without a guideline, as name and text. */
export function otherFigures(health: AlarmHealth, zone: string, now: number): [string, string][] {
  const { toAcknowledge, peak, floods } = health;
  return [
    ['Counted', formatWindow(health.window.start, health.window.end, zone, now)],
    ['Alarms in all', formatNumber(health.count, 0)],
    ['Worst ten minutes', peak.at === null ? 'none' : formatMoment(peak.at, zone, now)],
    ['Floods', formatNumber(floods.length, 0)],
    ['Fleeting', `${formatNumber(health.fleeting, 0)} cleared within a minute`],
    [
      'Time to acknowledge',
      toAcknowledge
        ? `${formatLength(toAcknowledge.median)} (half of them), ${formatLength(toAcknowledge.p95)} (95 % of them)`
        : 'none acknowledged',
    ],
    ['Not acknowledged', formatNumber(health.neverAcknowledged, 0)],
  ];
}
