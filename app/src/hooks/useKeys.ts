import { useEffect, useRef } from 'react';

/** Handlers by key: "d", "?", "Escape", "Ctrl+z", "Ctrl+Shift+z". Ctrl is also Cmd. */
export type Keys = Readonly<Record<string, (() => unknown) | undefined>>;

/**
 * Keyboard shortcuts of a screen. Inactive while typing, in a dialog, or if another handler has taken the
 * key.
 *
 * Own code: matching by the character typed is one line, and the conditions above would be ours with a library
 * too.
 */
export function useKeys(keys: Keys): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const hear = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || isTyping(event.target) || document.querySelector('[role=dialog]')) return;
      const act = latest.current[keyName(event)];
      if (!act) return;
      event.preventDefault();
      act();
    };
    document.addEventListener('keydown', hear);
    return () => document.removeEventListener('keydown', hear);
  }, []);
}

/** How a key is called in {@link Keys}. */
export function keyName(
  event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>,
): string {
  const command = event.ctrlKey || event.metaKey;
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  if (event.altKey) return `Alt+${key}`;
  if (!command) return key;
  return `Ctrl+${event.shiftKey ? 'Shift+' : ''}${key}`;
}

function isTyping(target: EventTarget | null): boolean {
  const element = target as HTMLElement | null;
  return Boolean(element?.closest?.('input, textarea, select, [contenteditable=true]'));
}
