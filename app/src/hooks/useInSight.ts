import { useEffect, useRef, useState, type RefObject } from 'react';
import type { View } from 'react-native';

/** Is an element in sight? Spread `ref` on it. Until that is known, and where no browser can tell, it is. */
export function useInSight(): readonly [RefObject<View | null>, boolean] {
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
