import { useEffect, useRef, useState, type ReactElement } from 'react';
import { whenIdle } from './whenIdle';

/**
 * The new element while on screen; the previous one off screen, until the browser is idle. On a board with
 * many readouts the visible ones come first.
 */
export function useDeferredOffScreen(now: ReactElement, inSight: boolean): ReactElement {
  const drawn = useRef(now);
  const [, drawAgain] = useState(0);
  const due = useRef(false);
  if (inSight || due.current) drawn.current = now;
  due.current = false;
  const waits = drawn.current !== now;
  useEffect(() => {
    if (!waits) return undefined;
    return whenIdle(() => {
      due.current = true;
      drawAgain((n) => n + 1);
    });
  });
  return drawn.current;
}
