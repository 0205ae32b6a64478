import { useState } from 'react';

/**
 * A value, or while there is none the last one there was: what is looked at stays until the new is there.
 *
 * @param value must keep its identity as long as it is the same.
 */
export function useKept<T>(value: T | undefined): { readonly value: T | undefined; readonly old: boolean } {
  const [last, setLast] = useState(value);
  if (value !== undefined && value !== last) setLast(value);
  return value === undefined ? { value: last, old: last !== undefined } : { value, old: false };
}
