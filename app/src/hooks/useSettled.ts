import { useEffect, useState } from 'react';

/** A value as it was once it has not changed for `ms`; compared by what it holds. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  const text = JSON.stringify(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(JSON.parse(text) as T), ms);
    return () => clearTimeout(timer);
  }, [text, ms]);
  return settled;
}
