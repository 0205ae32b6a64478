import {
  conditionWords,
  formatLength,
  LEVEL_WORDS,
  silentAfterMs,
  hoursWords,
  DAY_MS,
  delayOfPeriods,
  MINUTE_MS,
  periodsOfDelay,
  type AlarmRule,
} from '@vivid-beacon/core';

/** Delays a person chooses between, in minutes. */
export const DELAYS = [0, 5, 10, 15, 30, 60].map((minutes) => ({
  value: String(minutes),
  label: minutes === 0 ? 'At once' : `${minutes} min`,
}));

const IN_A_ROW = [1, 2, 3, 4];
const LONGEST_DELAY_MS = 7 * DAY_MS;

/** The delays of a rule: lengths of time, or periods in a row. Values in minutes. */
export function delaysOf(over: AlarmRule['over']): typeof DELAYS {
  if (over === null) return DELAYS;
  const { period } = over;
  return IN_A_ROW.map((n) => ({ n, ms: delayOfPeriods(period, n) }))
    .filter(({ ms }) => ms <= LONGEST_DELAY_MS)
    .map(({ n, ms }) => ({
      value: String(ms / MINUTE_MS),
      label: n === 1 ? `One ${period}` : `${n} ${period}s in a row`,
    }));
}

/** A delay in words; none is "a single sample" or "a single hour". */
export function delayWords(ms: number, over: AlarmRule['over']): string {
  if (over === null) return ms === 0 ? 'a single sample' : formatLength(ms);
  const n = periodsOfDelay(over.period, ms);
  return n === 1 ? `a single ${over.period}` : `${n} ${over.period}s in a row`;
}

/** A rule in one line: "Breach above 205 °C for 10 min, high priority, stays active until reset". */
export function ruleLine(rule: AlarmRule): string {
  const { test, over, onDelayMs } = rule;
  const delay = silentAfterMs(test) !== null || onDelayMs === 0 ? '' : ` for ${delayWords(onDelayMs, over)}`;
  return [
    `${LEVEL_WORDS[rule.level]} ${conditionWords(rule)}${delay}`,
    `${rule.priority} priority`,
    rule.caution &&
      `${LEVEL_WORDS.caution} ${conditionWords({ ...rule, test: rule.caution.test, over: null })}, ${rule.caution.priority} priority`,
    rule.hours && hoursWords(rule.hours),
    rule.latching && 'stays active until reset',
  ]
    .filter(Boolean)
    .join(', ');
}
