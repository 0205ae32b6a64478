import { useColorScheme } from 'react-native';
import { useThemeStore } from '../stores/themeStore';
import { DAY, NIGHT, type Palette } from './palette';

/** Is the night watch theme on: chosen, or as the device is set. */
export function useIsNight(): boolean {
  const choice = useThemeStore((state) => state.choice);
  const device = useColorScheme();
  return (choice ?? (device === 'dark' ? 'night' : 'day')) === 'night';
}

export function usePalette(): Palette {
  return useIsNight() ? NIGHT : DAY;
}
