import { checkBand, checkCuts, type BeaconError, type OwnCuts, type TargetBand } from '@vivid-beacon/core';

/** What is wrong with a band, if anything. */
export const problemOf = (band: TargetBand): BeaconError | null => problemIn(() => checkBand(band));

/** What is wrong with own cuts, if anything. */
export const problemOfCuts = (own: OwnCuts): BeaconError | null => problemIn(() => checkCuts(own));

function problemIn(check: () => void): BeaconError | null {
  try {
    check();
    return null;
  } catch (error) {
    return error as BeaconError;
  }
}
