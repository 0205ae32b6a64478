import { randomBytes } from 'node:crypto';
import type { Pool } from '../db/database';
import { hashPassword } from './passwords';
import { rightsEverywhere } from '@vivid-beacon/core';
import { addPerson, countPeople } from './sql';

/**
 * Makes the first account of an installation that has none.
 *
 * @returns its password, to be shown once; null if there are accounts already.
 */
export async function makeFirstAdministrator(pool: Pool, email: string, at: number): Promise<string | null> {
  if ((await countPeople(pool)) > 0) return null;
  const password = randomBytes(15).toString('base64url');
  const passwordHash = await hashPassword(password);
  await addPerson(pool, {
    email,
    name: 'Administrator',
    rights: rightsEverywhere('administrator'),
    passwordHash,
    at,
  });
  return password;
}
