import { testWords, type AlarmTest } from './alarmTest';
import { overWords, type RuleOver } from './rulePeriods';

/**
 * What a rule looks for, in words that follow "it is": the test with its limits and the periods it judges.
 *
 * @param looked `unit` and `decimals` of what is judged.
 * @example conditionWords({
 *   test: { kind: 'limit', side: 'above', limit: 1.35, deadband: 0 },
 *   over: { period: 'hour', summary: 'mean', indicatorId: null }, unit: '', decimals: 2,
 * }) // => 'above 1.35 over each full hour'
 */
export function conditionWords(looked: {
  readonly test: AlarmTest;
  readonly over: RuleOver | null;
  readonly unit: string;
  readonly decimals: number;
}): string {
  const { test, over, unit, decimals } = looked;
  const words = testWords(test, unit, decimals);
  return over ? `${words} ${overWords(over)}` : words;
}
