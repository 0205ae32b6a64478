import argon2 from 'argon2';

/** Parameters of RFC 9106, second recommended option: 64 MiB, 3 passes, 4 lanes. */
const OPTIONS = { type: argon2.argon2id, memoryCost: 65_536, timeCost: 3, parallelism: 4 } as const;

let decoy: Promise<string> | undefined;

export function hashPassword(password: string): Promise<string> {
  return argon2.hash(password, OPTIONS);
}

/** Takes as long for an unknown account (no hash) as for a known one, so that timing names nobody. */
export async function passwordFits(hash: string | undefined, password: string): Promise<boolean> {
  decoy ??= hashPassword('nobody has this password');
  const fits = await argon2.verify(hash ?? (await decoy), password);
  return fits && hash !== undefined;
}
