import {
  lengthOf,
  periodAsLongAs,
  resolveWindow,
  type PastBucket,
  type WindowSpec,
} from '@vivid-beacon/core';

/** Calendar periods about as long as a window, so that its limits fit them. */
export function bucketOfWindow(spec: WindowSpec, now: number, zone: string): PastBucket {
  return periodAsLongAs(lengthOf([resolveWindow(spec, now, zone)]));
}
