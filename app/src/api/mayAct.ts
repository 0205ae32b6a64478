import { allows, type Person } from '@vivid-beacon/core';

/** May this person acknowledge, remark and flag? The server checks it too. */
export function mayAct(person: Person | null): boolean {
  return person !== null && allows(person.role, 'operator');
}

/** May this person build boards and rules and bring in data? The server checks it too. */
export function mayBuild(person: Person | null): boolean {
  return person !== null && allows(person.role, 'analyst');
}
