/** A number in [0, 1) that depends only on seed and index: the same in every run, in any order. */
export function noise(seed: number, index: number): number {
  let h = Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b) ^ Math.imul(index | 0, 0xc2b2ae35);
  h ^= Math.imul(Math.floor(index / 4_294_967_296), 0x27d4eb2f);
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  return ((h ^ (h >>> 15)) >>> 0) / 4_294_967_296;
}

/** A smooth course between −1 and 1 that changes over about `periodMs`. */
export function drift(seed: number, t: number, periodMs: number): number {
  const at = t / periodMs;
  const whole = Math.floor(at);
  const x = at - whole;
  const ease = x * x * (3 - 2 * x);
  const a = noise(seed, whole);
  const b = noise(seed, whole + 1);
  return 2 * (a + (b - a) * ease) - 1;
}

/** A seed from a name. */
export function seedOf(text: string): number {
  let h = 2_166_136_261;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 16_777_619);
  return h >>> 0;
}
