import { hash, verify } from '@node-rs/argon2';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { BeaconError } from '@vivid-beacon/core';

/** Parameters of RFC 9106, second recommended option: 64 MiB, 3 passes, 4 lanes. */
const ARGON2ID = 2;
const OPTIONS = { algorithm: ARGON2ID, memoryCost: 65_536, timeCost: 3, parallelism: 4 } as const;

let decoy: Promise<string> | undefined;

export function hashPassword(password: string): Promise<string> {
  return hash(password, OPTIONS);
}

/** Takes as long for an unknown account (no hash) as for a known one, so that timing names nobody. */
export async function passwordFits(stored: string | null | undefined, password: string): Promise<boolean> {
  decoy ??= hashPassword('nobody has this password');
  const fits = await verify(stored ?? (await decoy), password);
  return fits && typeof stored === 'string';
}

/** The package's list of passwords from breaches, its word list and its keyboards; read at the first use. */
let guesser: ZxcvbnFactory | undefined;
/** Of the package's five steps, the one at which a thief of the hashes needs 100 million guesses or more. */
const HARD_TO_GUESS = 3;
/** So many letters and digits must be left besides the person's own names. */
const FOREIGN_LEAST = 8;

/**
 * A chosen password must be hard to guess: not one known from breaches, a keyboard walk, a repetition, or made of the
 * person's own name (NIST SP 800-63B-4, section 3.1.1.2, from memory; ASVS 5.0, 6.2.4 and 6.2.12, from memory).
 *
 * @param about name and address of the person. @throws {BeaconError} BAD_INPUT
 */
export function refuseEasyPassword(password: string, about: readonly string[]): void {
  guesser ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  const own = [...about.flatMap((each) => each.split(/[^\p{L}\p{N}]+/u)), 'vivid', 'beacon'];
  const foreign = withoutWords(password, own);
  if (foreign.length >= FOREIGN_LEAST && guesser.check(password, own).score >= HARD_TO_GUESS) return;
  throw new BeaconError(
    'BAD_INPUT',
    'This password is easy to guess: it is on a list of known passwords, repeats itself, or is made of your name. Take a few words that do not belong together.',
    'password',
  );
}

/** The letters and digits of a text that are not part of these words. */
function withoutWords(text: string, words: readonly string[]): string {
  return words
    .filter(({ length }) => length >= 3)
    .reduce((rest, word) => rest.replaceAll(word.toLowerCase(), ''), text.toLowerCase())
    .replace(/[^\p{L}\p{N}]+/gu, '');
}
