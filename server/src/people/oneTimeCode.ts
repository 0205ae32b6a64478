import { generateSecret, generateURI, verify } from 'otplib';
import { BeaconError } from '@vivid-beacon/core';

/** Seconds of one code, and how many digits it has: RFC 6238, and what every authenticator app takes. */
export const PERIOD_S = 30;
/** One step before and after is taken: RFC 6238, section 5.2. */
const DRIFT_STEPS = 1;
/** A clock that is off by more is not recognised. */
const LOOKED_AT_S = 20 * 60;

/** A secret of 160 bits, in Base32 as apps take it, and the address that a QR code holds. */
export function makeOtpSecret(email: string): { readonly secret: string; readonly uri: string } {
  const secret = generateSecret();
  return { secret, uri: generateURI({ issuer: 'Vivid Beacon', label: email, secret }) };
}

/**
 * The time step of a code, so that it can be used once only.
 *
 * @param lastStep of the last code used; null = none yet. @param now ms.
 * @throws {BeaconError} WRONG_PASSWORD for a wrong code, one used already, or one of a clock that is off, with how far.
 * @example
 * // RFC 6238, appendix B: at 59 s the code of the test secret is 94287082, of which six digits are 287082.
 */
export async function stepOfCode(
  secret: string,
  code: string,
  { lastStep, now }: { readonly lastStep: number | null; readonly now: number },
): Promise<number> {
  const epoch = Math.floor(now / 1000);
  const found = await verify({ secret, token: code, epoch, epochTolerance: LOOKED_AT_S });
  if (!found.valid) throw new BeaconError('WRONG_PASSWORD', 'This code is wrong or too old.', 'code');
  const { delta } = found;
  if (Math.abs(delta) > DRIFT_STEPS) {
    const minutes = Math.max(1, Math.round((Math.abs(delta) * PERIOD_S) / 60));
    throw new BeaconError(
      'WRONG_PASSWORD',
      `This code fits a clock that is ${minutes} min ${delta < 0 ? 'behind' : 'ahead'}. Let your device set its clock by the network and try again.`,
      'code',
    );
  }
  const step = Math.floor(epoch / PERIOD_S) + delta;
  if (lastStep !== null && step <= lastStep) {
    throw new BeaconError('WRONG_PASSWORD', 'This code was used already. Wait for the next one.', 'code');
  }
  return step;
}
