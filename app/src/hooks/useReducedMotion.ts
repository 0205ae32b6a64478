import { useSyncExternalStore } from 'react';

const query = typeof window === 'undefined' ? null : window.matchMedia?.('(prefers-reduced-motion: reduce)');

function subscribe(onChange: () => void): () => void {
  query?.addEventListener('change', onChange);
  return () => query?.removeEventListener('change', onChange);
}

/** Whether the user prefers reduced motion. */
export function useReducedMotion(): boolean {
  return useSyncExternalStore(
    subscribe,
    () => query?.matches ?? false,
    () => false,
  );
}
