import { useEffect, useRef, useState, type Ref } from 'react';
import type { View } from 'react-native';
import { useReducedMotion } from '../../hooks/useReducedMotion';

/** How long what was placed is marked, ms. */
const MARKED_MS = 2_500;
/** What is above it may still grow while it loads: looked for again after this, ms. */
const SETTLED_MS = 900;

/** Brings what was just placed into view. @returns its ref, and whether it is marked now. */
export function usePlaced(placed: boolean): readonly [ref: Ref<View>, marked: boolean] {
  const ref = useRef<View>(null);
  const still = useReducedMotion();
  const [over, setOver] = useState(false);
  useEffect(() => {
    if (!placed) return;
    const show = (): void =>
      (ref.current as unknown as HTMLElement | null)?.scrollIntoView?.({
        block: 'center',
        behavior: still ? 'auto' : 'smooth',
      });
    show();
    const again = setTimeout(show, SETTLED_MS);
    const end = setTimeout(() => setOver(true), MARKED_MS);
    return () => {
      clearTimeout(again);
      clearTimeout(end);
    };
  }, [placed, still]);
  return [ref, placed && !over];
}
