import { useThemeStore } from '../stores/themeStore';
import { DAY, NIGHT, type Palette } from '@vivid-beacon/core/src/drawing/palette';

/** Is the night watch theme on: chosen, or as the device is set. */
export function useIsNight(): boolean {
  return useThemeStore(({ choice, device }) => (choice ?? device) === 'night');
}

export function usePalette(): Palette {
  return useIsNight() ? NIGHT : DAY;
}
