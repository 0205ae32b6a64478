import { create } from 'zustand';

interface ConnectionState {
  readonly connected: boolean;
  /** When the connection was lost, ms; null while it holds. */
  readonly lostAt: number | null;
  /** Whether the rights of the person have changed since they looked last. */
  readonly rightsChanged: boolean;
  readonly actions: {
    readonly setConnected: (connected: boolean) => void;
    readonly setRightsChanged: (changed: boolean) => void;
  };
}

/** Does the live connection hold? */
export const useConnectionStore = create<ConnectionState>()((set) => ({
  connected: true,
  lostAt: null,
  rightsChanged: false,
  actions: {
    setRightsChanged: (rightsChanged) => set({ rightsChanged }),
    setConnected: (connected) =>
      set((state) => ({ connected, lostAt: connected ? null : (state.lostAt ?? Date.now()) })),
  },
}));
