import { allows, highestRole, plantsWith, roleAt, type Role, type SignedInPerson } from '@vivid-beacon/core';

/* What is offered; the server checks all of it too. Without a plant: whether the person may do so at any. */

/** Whether a person may acknowledge, remark and flag. */
export function mayAct(person: SignedInPerson | null, plantId?: string): boolean {
  return has(person, 'operator', plantId);
}

/** Whether a person may build rules and indicators and import data. */
export function mayBuild(person: SignedInPerson | null, plantId?: string): boolean {
  return has(person, 'analyst', plantId);
}

/** Whether a person has a role at every plant, as what belongs to no plant takes. */
export function mayEverywhere(person: SignedInPerson | null, needed: Role): boolean {
  return person !== null && plantsWith(person.rights, needed) === null;
}

function has(person: SignedInPerson | null, needed: Role, plantId: string | undefined): boolean {
  if (person === null) return false;
  const role = plantId === undefined ? highestRole(person.rights) : roleAt(person.rights, plantId);
  return role !== null && allows(role, needed);
}
