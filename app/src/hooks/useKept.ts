import { useRef } from 'react';

/**
 * Keeps the last value until a new one arrives. A ref instead of state, which would render every readout
 * twice.
 *
 * @param value must keep its identity as long as it is the same.
 */
export function useKept<T>(value: T | undefined): { readonly value: T | undefined; readonly old: boolean } {
  const last = useRef(value);
  if (value !== undefined) last.current = value;
  return { value: last.current, old: value === undefined && last.current !== undefined };
}
