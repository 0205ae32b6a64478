import { decimalsFor, scaleEnds, type Reading, type Readout, type WindowSpec } from '@vivid-beacon/core';
import { useReading } from '../api/queries';

/** The reading of a readout and how many decimals it is shown with. */
export function useShownReading(readout: Readout, window: WindowSpec) {
  const query = useReading({ measure: readout.measure, window, band: readout.band });
  return { query, decimals: shownDecimals(readout, query.data) };
}

/** As set, or so that about three figures of the scale are seen. */
export function shownDecimals(readout: Readout, reading: Reading | undefined): number {
  if (readout.decimals !== null) return readout.decimals;
  const [low, high] = scaleEnds(readout.band, [reading?.value ?? NaN]);
  return Math.min(3, decimalsFor(low, high));
}
