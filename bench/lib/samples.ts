/** A smooth wave with noise, like the samples of a sensor. */
export function wave(i: number, seed: number, decimals: number | null): number {
  const noise = Math.sin(i * 12.9898 + seed * 78.233) * 43758.5453;
  const value = 60 + 15 * Math.sin(i / 220 + seed) + 4 * Math.sin(i / 37) + (noise - Math.floor(noise)) * 0.8;
  if (decimals === null) return value * 1.000000123;
  const scale = 10 ** decimals;
  return Math.round(value * scale) / scale;
}
