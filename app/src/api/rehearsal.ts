import type { Rehearsal } from '@vivid-beacon/core';
import type { RuleForm } from './changes';
import { call } from './client';

/** A rehearsal, with how many samples and what range of values it ran over. */
export interface RehearsalAnswer extends Rehearsal {
  readonly samples: number;
  readonly range: readonly [number, number] | null;
}

/** Runs a rule on past samples, on the server, with the code that watches live. */
export function rehearse(rule: RuleForm, days: number, signal?: AbortSignal): Promise<RehearsalAnswer> {
  return call('POST', '/api/alarm-rules/rehearsal', { ...rule, days }, signal);
}
