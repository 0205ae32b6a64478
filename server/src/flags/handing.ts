import { allows, BeaconError, roleAt, type Flag, type Person, type SignedInPerson } from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import type { Reader } from '../db/reader';
import { findPerson } from '../people/sql';
import { findFlag } from './sql';

/** @throws {BeaconError} NOT_FOUND */
export async function needFlag(db: Reader, id: string): Promise<Flag> {
  const flag = await findFlag(db, id);
  if (!flag) throw new BeaconError('NOT_FOUND', 'This flag does not exist.');
  return flag;
}

/** A person who can close a flag at a plant. @throws {BeaconError} BAD_INPUT */
export async function needTaker(db: Queryable, id: string, plantId: string): Promise<Person> {
  const taker = await findPerson(db, id);
  if (!taker) throw new BeaconError('BAD_INPUT', 'This person does not exist.', 'toPersonId');
  const role = roleAt(taker.rights, plantId);
  if (role === null || !allows(role, 'operator')) {
    throw new BeaconError(
      'BAD_INPUT',
      role === null
        ? `${taker.name} has no rights at this plant; choose somebody who can close a flag there.`
        : `${taker.name} may only look; choose somebody who can close a flag.`,
      'toPersonId',
    );
  }
  return taker;
}

/**
 * Its taker, its giver, or an analyst may change a flag.
 *
 * @throws {BeaconError} NOT_ALLOWED
 */
export function checkTheirs(flag: Flag, person: SignedInPerson, what: string): void {
  const theirs = flag.to.id === person.id || flag.from.id === person.id;
  if (!theirs && roleAt(person.rights, flag.plantId) === 'operator') {
    throw new BeaconError(
      'NOT_ALLOWED',
      `This flag is ${flag.to.name}'s; only they, its giver or an analyst may ${what} it.`,
    );
  }
}
