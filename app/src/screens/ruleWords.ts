import {
  formatLength,
  LEVEL_WORDS,
  silentAfterMs,
  testWords,
  hoursWords,
  type AlarmRule,
  type Metric,
} from '@vivid-beacon/core';

/** Delays a person chooses between, in minutes. */
export const DELAYS = [0, 5, 10, 15, 30, 60].map((minutes) => ({
  value: String(minutes),
  label: minutes === 0 ? 'At once' : `${minutes} min`,
}));

/** A delay in words; none is "a single sample". */
export function delayWords(ms: number): string {
  return ms === 0 ? 'a single sample' : formatLength(ms);
}

/** A rule in one line: "Breach above 205 °C for 10 min, high priority, stays active until reset". */
export function ruleLine(rule: AlarmRule, metric: Pick<Metric, 'unit' | 'decimals'> | undefined): string {
  const looked = testWords(rule.test, metric?.unit ?? '', metric?.decimals ?? 1);
  const delay =
    silentAfterMs(rule.test) !== null || rule.onDelayMs === 0 ? '' : ` for ${delayWords(rule.onDelayMs)}`;
  return [
    `${LEVEL_WORDS[rule.level]} ${looked}${delay}`,
    `${rule.priority} priority`,
    rule.hours && hoursWords(rule.hours),
    rule.latching && 'stays active until reset',
  ]
    .filter(Boolean)
    .join(', ');
}
