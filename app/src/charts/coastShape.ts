/** Outline of a range of hills as a path, even in its rises and without chance: the same width, the same coast. */
export function hills(width: number, base: number, height: number, wave: number, shift: number): string {
  const steps = Math.max(8, Math.round(width / 16));
  const points = Array.from({ length: steps + 1 }, (_, i) => {
    const x = (i / steps) * width;
    const a = Math.sin((x + shift) / wave);
    const b = Math.sin((x + shift * 2.3) / (wave * 0.37));
    const rise = height * (0.45 + 0.35 * a + 0.2 * b);
    return `${x.toFixed(1)} ${(base - Math.max(2, rise)).toFixed(1)}`;
  });
  return `M0 ${base}L${points.join('L')}L${width} ${base}Z`;
}
