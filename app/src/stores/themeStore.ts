import { create } from 'zustand';
import { persist } from 'zustand/middleware';

interface ThemeState {
  /** null = as the device is set. */
  readonly choice: 'day' | 'night' | null;
  readonly actions: { readonly choose: (choice: 'day' | 'night') => void };
}

/** Day sheet or night watch, remembered on this device. */
export const useThemeStore = create<ThemeState>()(
  persist(
    (set) => ({
      choice: null,
      actions: { choose: (choice) => set({ choice }) },
    }),
    { name: 'vivid-beacon-theme', version: 1, partialize: ({ choice }) => ({ choice }) },
  ),
);
