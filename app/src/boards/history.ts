import type { BoardDocument } from '@vivid-beacon/core';

/** A board as it was at one moment. */
export interface Snapshot {
  readonly title: string;
  readonly document: BoardDocument;
}

/** Undo and redo stacks, the latest last. */
export interface History {
  readonly past: readonly Snapshot[];
  readonly future: readonly Snapshot[];
}

export const NO_HISTORY: History = { past: [], future: [] };
const LONGEST = 100;

/** Records a board before a change; the redo stack is cleared. */
export function remember({ past }: History, before: Snapshot): History {
  return { past: [...past, before].slice(-LONGEST), future: [] };
}

/** Goes back one step from `now`. null = nothing to undo. */
export function undone({ past, future }: History, now: Snapshot): { to: Snapshot; history: History } | null {
  const to = past[past.length - 1];
  return to ? { to, history: { past: past.slice(0, -1), future: [...future, now] } } : null;
}

/** Goes forward again one step. null = nothing was undone. */
export function redone({ past, future }: History, now: Snapshot): { to: Snapshot; history: History } | null {
  const to = future[future.length - 1];
  return to ? { to, history: { past: [...past, now], future: future.slice(0, -1) } } : null;
}
