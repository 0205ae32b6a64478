import { isMilder, type RuleInput } from '@vivid-beacon/core';

/** A rule as its rehearsal is asked for: what it is called and who is told changes nothing of what it finds. */
export function asRehearsed(rule: RuleInput | null): RuleInput | null {
  return (
    rule && {
      ...rule,
      name: 'Rehearsal',
      message: '',
      toDo: '',
      told: [],
      escalation: null,
      caution: quietly(rule),
      replaces: null,
    }
  );
}

/** A Caution that does not come first cannot be run yet. */
function quietly({ caution, test }: RuleInput): RuleInput['caution'] {
  if (!caution || !isMilder(caution.test, test)) return null;
  return { ...caution, message: '', toDo: '', told: [], escalation: null };
}
