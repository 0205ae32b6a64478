import { useRef, useState } from 'react';
import type { Interval } from '@vivid-beacon/core';
import { movedView, pinchedView, timeOf, type PlotView } from './plotView';

interface TrendPointerOptions {
  /** What is shown, and where on the element it lies. */
  readonly view: PlotView;
  /** Is a drag to choose a stretch also with a finger? Else a finger moves the cursor, or the view. */
  readonly choosing: boolean;
  /** Whether one finger pans the view. So it is once something is zoomed into. */
  readonly panning: boolean;
  /** Shows another window at once, by moving what is drawn; null puts it back. Its data is read at the end. */
  readonly onMove: (view: Interval | null) => void;
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

/** Shorter drags are accidental, px. */
const MIN_DRAG = 8;
const WHEEL_STEP = 1.25;

type Gesture =
  | { readonly kind: 'choose' | 'pan'; readonly px: number }
  | { readonly kind: 'pinch'; readonly from: readonly [number, number] };

/**
 * What mouse and fingers do on a trend: moving looks at a time, dragging with the mouse (or with a finger
 * while choosing) marks a stretch; Shift and the mouse, or a finger where something is zoomed into, move
 * the view; two fingers, or the wheel with Ctrl, zoom.
 */
export function useTrendPointer({
  view,
  choosing,
  panning,
  onMove,
  onZoom,
  onStretch,
}: TrendPointerOptions): TrendPointer {
  const [cursor, setCursor] = useState<number | null>(null);
  const [dragged, setDragged] = useState<Interval | null>(null);
  const gesture = useRef<Gesture | null>(null);
  const fingers = useRef(new Map<number, number>());
  /**
   * Position of the element while fingers are down; measuring in every frame would force a layout each time.
   */
  const standsAt = useRef(0);
  const placeOf = (event: PointerEvent): number => {
    if (fingers.current.size === 0) {
      standsAt.current = (event.currentTarget as HTMLElement).getBoundingClientRect().left;
    }
    return event.clientX - standsAt.current;
  };
  const inside = (px: number): number =>
    timeOf(view, Math.min(view.left + view.width, Math.max(view.left, px)));
  const between = (a: number, b: number): Interval => {
    const [start, end] = [inside(a), inside(b)].sort((m, n) => m - n);
    return { start, end };
  };
  const places = (): [number, number] =>
    [...fingers.current.values()].sort((a, b) => a - b) as [number, number];
  const moved = (px: number): Interval | null => {
    const now = gesture.current;
    if (now?.kind === 'pan') return movedView(view, now.px, px);
    if (now?.kind === 'pinch' && fingers.current.size === 2) return pinchedView(view, now.from, places());
    return null;
  };
  const finish = (event: PointerEvent, kept: boolean): void => {
    const px = placeOf(event);
    const now = gesture.current;
    if (fingers.current.has(event.pointerId)) fingers.current.set(event.pointerId, px);
    const to = moved(px);
    fingers.current.delete(event.pointerId);
    gesture.current = null;
    setDragged(null);
    const far = now !== null && (now.kind === 'pinch' || Math.abs(px - now.px) >= MIN_DRAG);
    // The transform stays until the data of the new window arrives.
    if (kept && far && to) onZoom(to);
    else if (now?.kind === 'pan' || now?.kind === 'pinch') onMove(null);
    else if (kept && far) onStretch(between(now.px, px));
  };
  return {
    cursor,
    setCursor,
    dragged,
    handlers: {
      onPointerDown: (event: PointerEvent) => {
        const px = placeOf(event);
        fingers.current.set(event.pointerId, px);
        if (fingers.current.size === 2) {
          gesture.current = { kind: 'pinch', from: places() };
          setDragged(null);
          setCursor(null);
        } else if (event.button === 0 && fingers.current.size === 1) {
          const mouse = event.pointerType === 'mouse';
          if (mouse ? event.shiftKey : panning && !choosing) gesture.current = { kind: 'pan', px };
          else if (mouse || choosing) gesture.current = { kind: 'choose', px };
        }
      },
      onPointerMove: (event: PointerEvent) => {
        const px = placeOf(event);
        if (fingers.current.has(event.pointerId)) fingers.current.set(event.pointerId, px);
        const now = gesture.current;
        const to = moved(px);
        if (to && now && (now.kind === 'pinch' || Math.abs(px - now.px) >= MIN_DRAG)) {
          setCursor(null);
          onMove(to);
          return;
        }
        if (now?.kind === 'pinch') return;
        setCursor(inside(px));
        if (now?.kind === 'choose' && Math.abs(px - now.px) >= MIN_DRAG) setDragged(between(now.px, px));
      },
      onPointerUp: (event: PointerEvent) => finish(event, true),
      onPointerCancel: (event: PointerEvent) => finish(event, false),
      onPointerLeave: () => setCursor(null),
      onWheel: (event: WheelEvent) => {
        if (!event.ctrlKey && !event.altKey) return;
        const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
        const t = inside(event.clientX - box.left);
        const factor = event.deltaY > 0 ? WHEEL_STEP : 1 / WHEEL_STEP;
        const { start, end } = view.window;
        onZoom({ start: Math.round(t - (t - start) * factor), end: Math.round(t + (end - t) * factor) });
      },
    },
  };
}
