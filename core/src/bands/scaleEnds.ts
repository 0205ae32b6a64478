import { limitsOf, type TargetBand } from './targetBand';

/** A scale spans at least this share of its larger end. */
const NARROWEST = 0.05;
/** Limits closer than this count as one. */
const SAME = 1e-9;
const SMALLEST = 1e-290;

/**
 * Ends for a gauge's scale that show the value, the target and every limit, with room on both sides, rounded
 * outward to 1, 2, 2.5 or 5 times a power of ten. Includes 0 when it is near.
 *
 * @param values numbers to include; NaN and infinities are ignored.
 * @example scaleEnds(null, [3, 97]) // => [0, 150]
 */
export function scaleEnds(band: TargetBand | null, values: readonly number[]): readonly [number, number] {
  return endsOf([...(band ? limitsOf(band) : []), ...values], NARROWEST);
}

/** Ends that just fit the limits and the target of a band. */
export function targetEnds(band: TargetBand): readonly [number, number] {
  return endsOf(limitsOf(band), SAME);
}

function endsOf(wanted: readonly number[], narrowest: number): readonly [number, number] {
  const shown = wanted.filter((x) => Number.isFinite(x));
  if (shown.length === 0) return [0, 1];
  let low = Math.min(...shown);
  let high = Math.max(...shown);
  const size = Math.max(Math.abs(low), Math.abs(high));
  // Zero, or so close to it that a step of the scale would vanish.
  if (size < SMALLEST) return low < 0 ? [-1, 1] : [0, 1];
  // A scale as narrow as the last change would make noise look significant.
  if (high - low < size * narrowest) {
    const room = size * 0.5;
    low -= room;
    high += room;
  }
  const room = (high - low) * 0.35;
  const wideLow = low >= 0 && low - room < (high - low) * 0.6 ? 0 : low - room;
  const step = niceStep((high + room - wideLow) / 6);
  const from = Math.floor(wideLow / step + 1e-9) * step;
  const to = Math.ceil((high + room) / step - 1e-9) * step;
  return [clean(from), clean(to)];
}

function niceStep(rough: number): number {
  const power = 10 ** Math.floor(Math.log10(rough));
  const share = rough / power;
  const nice = share <= 1 ? 1 : share <= 2 ? 2 : share <= 2.5 ? 2.5 : share <= 5 ? 5 : 10;
  return nice * power;
}

/** Removes the rounding noise of binary fractions: 0.30000000000000004 → 0.3. */
function clean(x: number): number {
  return Number(x.toPrecision(12));
}
