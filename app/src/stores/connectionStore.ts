import { create } from 'zustand';

interface ConnectionState {
  readonly connected: boolean;
  /** When the connection was lost, ms; null while it holds. */
  readonly lostAt: number | null;
  readonly actions: { readonly setConnected: (connected: boolean) => void };
}

/** Does the live connection hold? */
export const useConnectionStore = create<ConnectionState>()((set) => ({
  connected: true,
  lostAt: null,
  actions: {
    setConnected: (connected) =>
      set((state) => ({ connected, lostAt: connected ? null : (state.lostAt ?? Date.now()) })),
  },
}));
