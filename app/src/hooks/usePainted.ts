import { useEffect, useState } from 'react';
import { whenIdle } from './whenIdle';

/** Everything that belongs to one change of the board has come by then, ms. */
const LATER_MS = 150;

/**
 * A value a moment after what is drawn with it has been painted, when nothing more urgent waits: for what can
 * come later. undefined at first.
 */
export function usePainted<T>(value: T): T | undefined {
  const [painted, setPainted] = useState<{ readonly value: T }>();
  useEffect(() => {
    let stop = (): void => undefined;
    const timer = setTimeout(() => {
      stop = whenIdle(() => setPainted({ value }));
    }, LATER_MS);
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [value]);
  return painted?.value;
}
