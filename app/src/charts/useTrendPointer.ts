import { useRef, useState } from 'react';
import type { Interval } from '@vivid-beacon/core';

interface TrendPointerOptions {
  readonly window: Interval;
  /** Time at a place of the element, from its left edge in px. */
  readonly timeAt: (px: number) => number;
  /** Is a drag to choose a stretch also with a finger? Else a finger moves the cursor. */
  readonly choosing: boolean;
  readonly onZoom: (window: Interval) => void;
  readonly onStretch: (stretch: Interval) => void;
}

interface TrendPointer {
  /** Time that is looked at, ms; null = none. */
  readonly cursor: number | null;
  readonly setCursor: (t: number | null) => void;
  /** The stretch being dragged out. */
  readonly dragged: Interval | null;
  readonly handlers: object;
}

/** A drag shorter than this is a slip of the hand, px. */
const SHORTEST_DRAG = 8;
const WHEEL_STEP = 1.25;

/**
 * What mouse and fingers do on a trend: moving looks at a time, dragging with the mouse (or with a finger
 * while choosing) marks a stretch, the wheel with Ctrl and two fingers zoom.
 */
export function useTrendPointer({
  window,
  timeAt,
  choosing,
  onZoom,
  onStretch,
}: TrendPointerOptions): TrendPointer {
  const [cursor, setCursor] = useState<number | null>(null);
  const [dragged, setDragged] = useState<Interval | null>(null);
  const from = useRef<{ readonly t: number; readonly px: number } | null>(null);
  const fingers = useRef(new Map<number, number>());
  const pinch = useRef<{ readonly left: number; readonly right: number } | null>(null);
  const placeOf = (event: PointerEvent): number =>
    event.clientX - (event.currentTarget as HTMLElement).getBoundingClientRect().left;
  const zoomAt = (t: number, factor: number): void => {
    const length = (window.end - window.start) * factor;
    const share = (t - window.start) / (window.end - window.start);
    onZoom({ start: Math.round(t - length * share), end: Math.round(t + length * (1 - share)) });
  };
  const up = (event: PointerEvent): void => {
    fingers.current.delete(event.pointerId);
    if (pinch.current && fingers.current.size < 2) {
      pinch.current = null;
      from.current = null;
      return;
    }
    const begun = from.current;
    from.current = null;
    setDragged(null);
    if (!begun || Math.abs(placeOf(event) - begun.px) < SHORTEST_DRAG) return;
    const to = timeAt(placeOf(event));
    onStretch({ start: Math.min(begun.t, to), end: Math.max(begun.t, to) });
  };
  return {
    cursor,
    setCursor,
    dragged,
    handlers: {
      onPointerDown: (event: PointerEvent) => {
        fingers.current.set(event.pointerId, placeOf(event));
        if (fingers.current.size === 2) {
          const [left, right] = [...fingers.current.values()].map(timeAt).sort((a, b) => a - b);
          pinch.current = { left, right };
          setDragged(null);
          return;
        }
        if (event.button === 0 && (event.pointerType === 'mouse' || choosing)) {
          from.current = { t: timeAt(placeOf(event)), px: placeOf(event) };
        }
      },
      onPointerMove: (event: PointerEvent) => {
        const px = placeOf(event);
        if (fingers.current.has(event.pointerId)) fingers.current.set(event.pointerId, px);
        if (pinch.current && fingers.current.size === 2) return;
        const t = timeAt(px);
        setCursor(t);
        const begun = from.current;
        if (begun && Math.abs(px - begun.px) >= SHORTEST_DRAG) {
          setDragged({ start: Math.min(begun.t, t), end: Math.max(begun.t, t) });
        }
      },
      onPointerUp: (event: PointerEvent) => {
        if (pinch.current && fingers.current.size === 2) {
          // The two times that lay under the fingers come to lie where the fingers are now.
          const { left, right } = pinch.current;
          const [a, b] = [...fingers.current.values()].map(timeAt).sort((m, n) => m - n);
          if (b - a > 0) {
            const factor = (right - left) / (b - a);
            const centre = (left + right) / 2;
            zoomAt(centre, factor);
          }
        }
        up(event);
      },
      onPointerCancel: up,
      onPointerLeave: () => setCursor(null),
      onWheel: (event: WheelEvent) => {
        if (!event.ctrlKey && !event.altKey) return;
        const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
        zoomAt(timeAt(event.clientX - box.left), event.deltaY > 0 ? WHEEL_STEP : 1 / WHEEL_STEP);
      },
    },
  };
}
