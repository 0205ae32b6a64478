import { hash, verify } from '@node-rs/argon2';

/** Parameters of RFC 9106, second recommended option: 64 MiB, 3 passes, 4 lanes. */
const ARGON2ID = 2;
const OPTIONS = { algorithm: ARGON2ID, memoryCost: 65_536, timeCost: 3, parallelism: 4 } as const;

let decoy: Promise<string> | undefined;

export function hashPassword(password: string): Promise<string> {
  return hash(password, OPTIONS);
}

/** Takes as long for an unknown account (no hash) as for a known one, so that timing names nobody. */
export async function passwordFits(stored: string | undefined, password: string): Promise<boolean> {
  decoy ??= hashPassword('nobody has this password');
  const fits = await verify(stored ?? (await decoy), password);
  return fits && stored !== undefined;
}
