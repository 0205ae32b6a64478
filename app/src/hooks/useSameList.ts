import { useRef } from 'react';

/**
 * The list of the drawing before, as long as it holds the same things: a list made anew then changes nothing.
 * Kept without a state of its own, because it is asked for in every readout at every drawing.
 */
export function useSameList<T>(list: readonly T[]): readonly T[] {
  const kept = useRef(list);
  const same = kept.current.length === list.length && list.every((each, i) => each === kept.current[i]);
  if (!same) kept.current = list;
  return kept.current;
}
