import { create } from 'zustand';
import type { WindowSpec } from '@vivid-beacon/core';

interface BoardViewState {
  /** The window each board is looked at through, where it is not its own. */
  readonly windows: Readonly<Record<string, WindowSpec>>;
  readonly actions: {
    readonly look: (boardId: string, window: WindowSpec) => void;
    readonly lookAsSaved: (boardId: string) => void;
  };
}

/** How boards are looked at on this screen; nothing of it is saved with the board. */
export const useBoardViewStore = create<BoardViewState>()((set) => ({
  windows: {},
  actions: {
    look: (boardId, window) => set(({ windows }) => ({ windows: { ...windows, [boardId]: window } })),
    lookAsSaved: (boardId) =>
      set(({ windows }) => ({
        windows: Object.fromEntries(Object.entries(windows).filter(([id]) => id !== boardId)),
      })),
  },
}));
