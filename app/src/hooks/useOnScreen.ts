import { useEffect, useRef, useState, type RefObject } from 'react';
import type { View } from 'react-native';

/** Whether an element is on screen. Spread `ref` on it. True until known, and without browser support. */
export function useOnScreen(): readonly [RefObject<View | null>, boolean] {
  const ref = useRef<View>(null);
  const [inSight, setInSight] = useState(true);
  useEffect(() => {
    if (typeof IntersectionObserver !== 'function' || !ref.current) return;
    const observer = new IntersectionObserver((seen) => setInSight(seen[seen.length - 1].isIntersecting));
    // On the web a view is an element of the page.
    observer.observe(ref.current as unknown as Element);
    return () => observer.disconnect();
  }, []);
  return [ref, inSight];
}
