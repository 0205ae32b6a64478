import { useState } from 'react';

/** The list of the drawing before, as long as it holds the same things: a list made anew then changes nothing. */
export function useSameList<T>(list: readonly T[]): readonly T[] {
  const [kept, setKept] = useState(list);
  if (kept.length === list.length && list.every((each, i) => each === kept[i])) return kept;
  setKept(list);
  return list;
}
