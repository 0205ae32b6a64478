import type { CourseAnswer, OtherLimits, RehearsalAnswer, RuleInput } from '@vivid-beacon/core';
import { call } from './client';

/** Runs a rule on past samples, on the server, with the code that watches live. */
export function requestRehearsal(
  rule: RuleInput,
  days: number,
  signal?: AbortSignal,
): Promise<RehearsalAnswer> {
  return call('POST /api/alarm-rules/rehearsal', { body: { ...rule, days } }, signal);
}

/** How often the rule would have fired with other limits. */
export function requestLimitRehearsal(
  rule: RuleInput,
  days: number,
  signal?: AbortSignal,
): Promise<OtherLimits> {
  return call('POST /api/alarm-rules/rehearsal/limits', { body: { ...rule, days } }, signal);
}

/** What the rule compares with its limit on one of its metrics, for a drawing so many px wide. */
export function requestCourse(
  rule: RuleInput,
  order: { readonly days: number; readonly courseOf: string; readonly columns: number },
  signal?: AbortSignal,
): Promise<CourseAnswer> {
  return call('POST /api/alarm-rules/rehearsal/course', { body: { ...rule, ...order } }, signal);
}
