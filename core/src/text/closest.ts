/** Pairs of neighbouring letters. */
function pairs(text: string): Map<string, number> {
  const found = new Map<string, number>();
  for (let i = 0; i + 1 < text.length; i++) {
    const pair = text.slice(i, i + 2);
    found.set(pair, (found.get(pair) ?? 0) + 1);
  }
  return found;
}

/**
 * The entry that most resembles a text, to ask "did you mean …?".
 *
 * Resemblance is the Sørensen–Dice coefficient of neighbouring letters (Dice, Ecology 26, 1945), without regard to
 * case and to anything but letters and digits.
 *
 * @returns null when nothing reaches `least`.
 * @example closest('quayside.ironer2.temp', ['quayside.ironer-2.temp', 'weir.gas']) // => 'quayside.ironer-2.temp'
 */
export function closest(text: string, among: readonly string[], least = 0.6): string | null {
  const plain = (each: string): string => each.toLowerCase().replace(/[^\p{L}\d]+/gu, '');
  const wanted = pairs(plain(text));
  const size = (all: ReadonlyMap<string, number>): number => [...all.values()].reduce((a, b) => a + b, 0);
  const total = size(wanted);
  let best: string | null = null;
  let bestScore = least;
  for (const each of among) {
    const own = pairs(plain(each));
    let shared = 0;
    for (const [pair, n] of wanted) shared += Math.min(n, own.get(pair) ?? 0);
    const score = (2 * shared) / Math.max(1, total + size(own));
    if (score > bestScore) {
      bestScore = score;
      best = each;
    }
  }
  return best;
}
