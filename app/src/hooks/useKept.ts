import { useRef } from 'react';

/**
 * A value, or while there is none the last one there was: what is looked at stays until the new is there.
 * Kept without a state of its own: setting one would draw every readout twice.
 *
 * @param value must keep its identity as long as it is the same.
 */
export function useKept<T>(value: T | undefined): { readonly value: T | undefined; readonly old: boolean } {
  const last = useRef(value);
  if (value !== undefined) last.current = value;
  return { value: last.current, old: value === undefined && last.current !== undefined };
}
