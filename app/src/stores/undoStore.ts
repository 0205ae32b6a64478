import { create } from 'zustand';

/** Something that was removed and can be put back. */
export interface UndoOffer {
  /** What was done: "Gas meter, Boiler removed". */
  readonly words: string;
  readonly undo: () => Promise<unknown>;
}

interface UndoState {
  readonly offer: UndoOffer | null;
  readonly actions: {
    readonly give: (offer: UndoOffer) => void;
    readonly dismiss: () => void;
  };
}

/** The last thing that can be undone from anywhere. It stays until it is undone, dismissed or followed by another. */
export const useUndoStore = create<UndoState>()((set) => ({
  offer: null,
  actions: {
    give: (offer) => set({ offer }),
    dismiss: () => set({ offer: null }),
  },
}));
