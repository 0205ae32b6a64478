import { allows, type Person } from '@vivid-beacon/core';

/** Whether a person may acknowledge, remark and flag. The server checks it too. */
export function mayAct(person: Person | null): boolean {
  return person !== null && allows(person.role, 'operator');
}

/** Whether a person may build boards and rules and import data. The server checks it too. */
export function mayBuild(person: Person | null): boolean {
  return person !== null && allows(person.role, 'analyst');
}
