import type { Interval } from '@vivid-beacon/core';
import type { PlottedSeries } from '@vivid-beacon/core/src/pictures';

interface TrendKeysOptions {
  /** The line that is walked. */
  readonly line: Pick<PlottedSeries, 't' | 'v'>;
  /** Index of the point that is looked at; −1 = none. */
  readonly at: number;
  /** Is a time looked at? Else Escape belongs to the page. */
  readonly looking: boolean;
  readonly window: Interval;
  readonly setCursor: (t: number | null) => void;
  /** Undefined where nothing can be zoomed. */
  readonly zoomTo: ((window: Interval) => void) | undefined;
  /** Tells the numbers of all that is shown. */
  readonly onWhole: (() => void) | undefined;
}

const ZOOM_STEP = 2;
const PAN_STEP = 0.25;

/** Keyboard of a trend: arrows walk from point to point, with Shift they pan, plus and minus zoom. */
export function trendKeys({
  line: { t, v },
  at,
  looking,
  window,
  setCursor,
  zoomTo,
  onWhole,
}: TrendKeysOptions): (event: KeyboardEvent) => void {
  const move = (step: number): void => {
    const from = at >= 0 ? at : step > 0 ? -1 : t.length;
    for (let i = from + step; i >= 0 && i < t.length; i += step) {
      if (v[i] !== null) {
        setCursor(t[i]);
        return;
      }
    }
  };
  const zoom = (factor: number): void => {
    const centre = at >= 0 ? t[at] : (window.start + window.end) / 2;
    const half = ((window.end - window.start) * factor) / 2;
    zoomTo?.({ start: Math.round(centre - half), end: Math.round(centre + half) });
  };
  const pan = (share: number): void => {
    const by = (window.end - window.start) * share;
    zoomTo?.({ start: Math.round(window.start + by), end: Math.round(window.end + by) });
  };
  const keys: Readonly<Record<string, () => void>> = {
    ArrowRight: () => move(1),
    ArrowLeft: () => move(-1),
    ...(looking && { Escape: () => setCursor(null) }),
    ...(zoomTo && {
      'Shift+ArrowRight': () => pan(PAN_STEP),
      'Shift+ArrowLeft': () => pan(-PAN_STEP),
      '+': () => zoom(1 / ZOOM_STEP),
      '=': () => zoom(1 / ZOOM_STEP),
      '-': () => zoom(ZOOM_STEP),
    }),
    ...(onWhole && { Enter: onWhole }),
  };
  return (event) => {
    const key = event.shiftKey && event.key.startsWith('Arrow') ? `Shift+${event.key}` : event.key;
    const act = event.ctrlKey || event.metaKey ? undefined : keys[key];
    if (!act) return;
    act();
    event.preventDefault();
    event.stopPropagation();
  };
}
