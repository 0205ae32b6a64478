import { RUNNING } from '../domain/metric';
import { formatLength, formatNumber, formatValue } from '../format/format';
import type { AlarmTest, AlarmTestKind } from './alarmTest';

/** What a person chooses between. */
export const ALARM_TEST_WORDS: Readonly<Record<AlarmTestKind, string>> = {
  limit: 'a limit',
  outside: 'a band',
  change: 'a change',
  silence: 'silence',
  consumption: 'consumption',
  state: 'a state',
  runRules: 'run rules',
  baseline: 'the usual',
};

const TURN = { rise: 'up by more than', fall: 'down by more than', either: 'changed by more than' } as const;
const PERIOD = {
  hour: 'in the hour',
  day: 'in the day',
  month: 'in the month',
  year: 'in the year',
} as const;
const SIDE = { above: 'above', below: 'below', either: 'from' } as const;

/** A state code in words. */
export function stateWords(code: number, is: boolean): string {
  const word = code === RUNNING ? 'running' : code === 0 ? 'stopped' : `in state ${code}`;
  return is ? word : `not ${word}`;
}

/** What a test looks for, after "when the metric is": "above 205 °C". `unit` and `decimals` are the metric's. */
export function testWords(test: AlarmTest, unit: string, decimals: number): string {
  const value = (x: number): string => formatValue(x, unit, decimals);
  switch (test.kind) {
    case 'limit':
      return `${test.side} ${value(test.limit)}`;
    case 'outside':
      return `outside ${formatNumber(test.low, decimals)} to ${value(test.high)}`;
    case 'change': {
      const size = test.inPercent ? `${formatNumber(test.limit, 1)} %` : value(test.limit);
      return `${TURN[test.side]} ${size} in ${formatLength(test.overMs)}`;
    }
    case 'silence':
      return `silent for ${formatLength(test.forMs)}`;
    case 'consumption':
      return `${test.pace ? 'on the way to' : 'over'} ${value(test.limit)} ${PERIOD[test.per]}`;
    case 'state':
      return stateWords(test.code, test.is);
    case 'runRules':
      return `breaking run rule${test.rules.length === 1 ? '' : 's'} ${test.rules.join(', ')}`;
    case 'baseline':
      return `more than ${formatNumber(test.limit, 1)} σ ${SIDE[test.side]} the usual for the hour`;
  }
}

/** Where it is back to normal, in words; null where the end of the finding itself is. */
export function backWords(test: AlarmTest, unit: string, decimals: number): string | null {
  const value = (x: number): string => formatValue(x, unit, decimals);
  switch (test.kind) {
    case 'limit':
      return test.side === 'above'
        ? `at or under ${value(test.limit - test.deadband)}`
        : `at or over ${value(test.limit + test.deadband)}`;
    case 'outside':
      return `inside ${formatNumber(test.low + test.deadband, decimals)} to ${value(test.high - test.deadband)}`;
    case 'change':
      return `at ${test.inPercent ? `${formatNumber(test.limit - test.deadband, 1)} %` : value(test.limit - test.deadband)} or less`;
    case 'baseline':
      return `at ${formatNumber(test.limit - test.deadband, 1)} σ or less`;
    default:
      return null;
  }
}
