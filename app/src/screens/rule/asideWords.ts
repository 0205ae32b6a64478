import type { AlarmRule } from '@vivid-beacon/core';
import { siteMoment } from '../siteMoment';

/** How many metrics a rule watches, how many the plant's state suppresses, and why it cannot judge; empty for a plain one. */
export function watchedWords({ under, watched }: Pick<AlarmRule, 'under' | 'watched'>): string {
  const { metrics, suppressed: quiet, problem } = watched;
  const many = under === null ? '' : `${metrics} metrics`;
  const suppressed = quiet === 0 ? '' : quiet === metrics ? 'suppressed now' : `${quiet} suppressed now`;
  const broken = problem && `cannot be judged: ${problem}`;
  return [many, suppressed, broken].filter(Boolean).join(', ');
}

/** How a rule is set aside, by whom and why; empty when it is not. */
export function asideWords({ watched }: Pick<AlarmRule, 'watched'>, zone: string, now: number): string {
  const { metrics, aside, how: set } = watched;
  if (set === null) return '';
  const { by, until, reason } = set;
  const how = until === null ? 'Out of service' : `Shelved until ${siteMoment(until, zone, now)}`;
  const where = aside === metrics ? '' : ` on ${aside} of ${metrics}`;
  return `. ${how}${where}, ${by}: ${reason}`;
}
