import type { OtherLimits, Rehearsal } from '@vivid-beacon/core/src/engine';
import type { RuleForm } from './changes';
import { call } from './client';

/** A rehearsal with what it ran over. */
export interface RehearsalAnswer extends Rehearsal {
  readonly samples: number;
  readonly metrics: number;
  /** It learnt what is usual from the very samples it was run on. */
  readonly learntOnItself: boolean;
  /** Metrics with too little past to learn from. */
  readonly unlearnt: number;
}

/** Runs a rule on past samples, on the server, with the code that watches live. */
export function rehearse(rule: RuleForm, days: number, signal?: AbortSignal): Promise<RehearsalAnswer> {
  return call('POST', '/api/alarm-rules/rehearsal', { ...rule, days }, signal);
}

/** How often the rule would have fired with other limits. */
export function rehearseLimits(rule: RuleForm, days: number, signal?: AbortSignal): Promise<OtherLimits> {
  return call('POST', '/api/alarm-rules/rehearsal/limits', { ...rule, days }, signal);
}
