import { useRef } from 'react';

/**
 * The previous list while its items are the same, so that a new array does not cause a render. A ref instead
 * of state, because every readout uses it in every render.
 */
export function useStableList<T>(list: readonly T[]): readonly T[] {
  const kept = useRef(list);
  const same = kept.current.length === list.length && list.every((each, i) => each === kept.current[i]);
  if (!same) kept.current = list;
  return kept.current;
}
