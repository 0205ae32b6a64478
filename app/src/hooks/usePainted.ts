import { useEffect, useState } from 'react';

/** A value once what is drawn with it has been painted: for what can wait until then. undefined at first. */
export function usePainted<T>(value: T): T | undefined {
  const [painted, setPainted] = useState<{ readonly value: T }>();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => setPainted({ value }), 0);
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, [value]);
  return painted?.value;
}
