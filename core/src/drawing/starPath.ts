/** An eight-pointed star: 16 corners every 22.5°, the first straight up, `outer` and `inner` radius in turn. */
export function starPath(cx: number, cy: number, outer: number, inner: number): string {
  const corners = Array.from({ length: 16 }, (_, i) => {
    const angle = (i * Math.PI) / 8;
    const r = i % 2 === 0 ? outer : inner;
    return `${(cx + r * Math.sin(angle)).toFixed(2)} ${(cy - r * Math.cos(angle)).toFixed(2)}`;
  });
  return `M${corners.join('L')}Z`;
}
