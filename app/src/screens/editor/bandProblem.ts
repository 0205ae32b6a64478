import {
  checkBand,
  checkThresholds,
  type BeaconError,
  type CustomThresholds,
  type TargetBand,
} from '@vivid-beacon/core';

/** What is wrong with a band, if anything. */
export const problemOf = (band: TargetBand): BeaconError | null => problemIn(() => checkBand(band));

/** What is wrong with custom thresholds, if anything. */
export const problemOfThresholds = (own: CustomThresholds): BeaconError | null =>
  problemIn(() => checkThresholds(own));

function problemIn(check: () => void): BeaconError | null {
  try {
    check();
    return null;
  } catch (error) {
    return error as BeaconError;
  }
}
