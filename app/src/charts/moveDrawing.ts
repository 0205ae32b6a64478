import type { Interval } from '@vivid-beacon/core';
import type { PlotView } from './plotView';

/**
 * Shows another window of a trend at once by transforming the drawing: at 60 frames a second there is no time
 * for a new layout. Graduations go along when it only moves, and wait unseen while it is stretched; names at
 * the ends of lines wait too. `to` = null puts everything back.
 */
export function moveDrawing(id: string, { window, width }: PlotView, to: Interval | null): void {
  const part = (name: string): HTMLElement | null => document.getElementById(id + name);
  if (to === null) {
    for (const name of ['moves', 'ticks']) {
      part(name)?.style.removeProperty('transform');
      part(name)?.style.removeProperty('will-change');
    }
    for (const name of ['ticks', 'names']) part(name)?.removeAttribute('visibility');
    return;
  }
  const length = to.end - to.start;
  const by = (((window.start - to.start) / length) * width).toFixed(1);
  const stretched = (window.end - window.start) / length;
  const whole = Math.abs(stretched - 1) < 1e-6;
  // A layer of its own is moved without being laid out or painted again: by its style, not by its attribute.
  const place = (name: string, transform: string): void => {
    part(name)?.style.setProperty('will-change', 'transform');
    part(name)?.style.setProperty('transform', transform);
  };
  place('moves', `translate(${by}px, 0) scale(${stretched.toFixed(5)}, 1)`);
  part('names')?.setAttribute('visibility', 'hidden');
  if (whole) place('ticks', `translate(${by}px, 0)`);
  else part('ticks')?.setAttribute('visibility', 'hidden');
}
