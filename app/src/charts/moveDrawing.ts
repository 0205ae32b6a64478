import type { Interval } from '@vivid-beacon/core';
import type { PlotView } from './plotView';

/**
 * Shows another window of a trend at once, by moving what is drawn as a whole: at 60 frames a second there is
 * no time to lay it out anew. Graduations go along when it only moves, and wait unseen while it is stretched;
 * names at the ends of lines wait too. `to` = null puts everything back.
 */
export function moveDrawing(id: string, { window, width }: PlotView, to: Interval | null): void {
  const part = (name: string): HTMLElement | null => document.getElementById(id + name);
  if (to === null) {
    for (const name of ['moves', 'ticks']) part(name)?.removeAttribute('transform');
    part('moves')?.style.removeProperty('will-change');
    for (const name of ['ticks', 'names']) part(name)?.removeAttribute('visibility');
    return;
  }
  const length = to.end - to.start;
  const by = (((window.start - to.start) / length) * width).toFixed(1);
  const stretched = (window.end - window.start) / length;
  const whole = Math.abs(stretched - 1) < 1e-6;
  // A layer of its own is moved without being painted again.
  part('moves')?.style.setProperty('will-change', 'transform');
  part('moves')?.setAttribute('transform', `translate(${by} 0) scale(${stretched.toFixed(5)} 1)`);
  part('names')?.setAttribute('visibility', 'hidden');
  if (whole) part('ticks')?.setAttribute('transform', `translate(${by} 0)`);
  else part('ticks')?.setAttribute('visibility', 'hidden');
}
