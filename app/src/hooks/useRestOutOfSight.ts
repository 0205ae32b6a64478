import { useEffect, useRef, useState, type ReactElement } from 'react';
import { whenIdle } from './whenIdle';

/**
 * What is drawn; out of sight what was drawn before, until nothing more urgent waits. With many readouts on a
 * board those that are looked at come first, and a slow phone is not busy with the others meanwhile.
 */
export function useRestOutOfSight(now: ReactElement, inSight: boolean): ReactElement {
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
