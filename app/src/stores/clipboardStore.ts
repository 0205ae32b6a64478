import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { Readout } from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION } from '@vivid-beacon/core/src/boards';

interface ClipboardState {
  readonly readout: Readout | null;
  readonly actions: { readonly copy: (readout: Readout) => void };
}

/** The readout copied last, on this device, to be pasted on any board. */
export const useClipboardStore = create<ClipboardState>()(
  persist(
    (set) => ({
      readout: null,
      actions: { copy: (readout) => set({ readout }) },
    }),
    {
      name: 'vivid-beacon-copied-readout',
      // A readout copied in an older format is discarded.
      version: BOARD_FORMAT_VERSION,
      partialize: ({ readout }) => ({ readout }),
    },
  ),
);
