import { useEffect, useState } from 'react';

/** A value debounced by `ms`; compared by content. */
export function useDebounced<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  const text = JSON.stringify(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(JSON.parse(text) as T), ms);
    return () => clearTimeout(timer);
  }, [text, ms]);
  return settled;
}
