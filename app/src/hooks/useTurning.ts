import { useEffect, useRef, useState } from 'react';
import { useReducedMotion } from './useReducedMotion';

const TURN_MS = 320;

/** A number that turns to its new value in 320 ms, easing out, without overshoot; at once with reduced motion. */
export function useTurning(target: number): number {
  const still = useReducedMotion();
  const [shown, setShown] = useState(target);
  const from = useRef(target);
  useEffect(() => {
    if (still || from.current === target) {
      from.current = target;
      setShown(target);
      return undefined;
    }
    const start = from.current;
    const began = performance.now();
    let frame = requestAnimationFrame(function turn(now) {
      const share = Math.min(1, (now - began) / TURN_MS);
      const at = start + (target - start) * (1 - (1 - share) ** 3);
      from.current = at;
      setShown(at);
      if (share < 1) frame = requestAnimationFrame(turn);
    });
    return () => cancelAnimationFrame(frame);
  }, [target, still]);
  return shown;
}
