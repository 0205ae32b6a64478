/** So many days are handled by one statement; each is a few kB. */
const MAX_DAYS = 400;
/** So many samples are packed in one go: more would hold the thread for too long. */
const MAX_SAMPLES = 250_000;

/**
 * Cuts a list of days into portions that are worked through one after another, with the thread free in between.
 *
 * @param countOf how many samples a day has.
 * @example portionsOf([300_000, 10, 20], (n) => n) // => [[300_000], [10, 20]]
 */
export function portionsOf<Day>(days: readonly Day[], countOf: (day: Day) => number): Day[][] {
  const portions: Day[][] = [];
  let samples = Infinity;
  for (const day of days) {
    const n = countOf(day);
    const last = portions.at(-1);
    if (!last || last.length >= MAX_DAYS || samples + n > MAX_SAMPLES) {
      portions.push([day]);
      samples = n;
    } else {
      last.push(day);
      samples += n;
    }
  }
  return portions;
}
