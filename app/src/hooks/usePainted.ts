import { useEffect, useState } from 'react';
import { whenIdle } from './whenIdle';

/** Time by which all effects of one change of the board have arrived, ms. */
const LATER_MS = 150;

/**
 * A value delayed until after its paint, when the browser is idle: for secondary content. undefined at first.
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
