import { Appearance } from 'react-native';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

type Theme = 'day' | 'night';

interface ThemeState {
  /** null = as the device is set. */
  readonly choice: Theme | null;
  readonly device: Theme;
  readonly actions: { readonly choose: (choice: Theme) => void };
}

const themeOf = (scheme: string | null | undefined): Theme => (scheme === 'dark' ? 'night' : 'day');

/** Day sheet or night watch, remembered on this device. */
export const useThemeStore = create<ThemeState>()(
  persist(
    (set): ThemeState => ({
      choice: null,
      device: themeOf(Appearance.getColorScheme()),
      actions: { choose: (choice) => set({ choice }) },
    }),
    { name: 'vivid-beacon-theme', version: 1, partialize: ({ choice }) => ({ choice }) },
  ),
);

// Asked once for all: every element of a drawing has its colours from here.
Appearance.addChangeListener(({ colorScheme }) => useThemeStore.setState({ device: themeOf(colorScheme) }));
