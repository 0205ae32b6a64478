import { useWindowDimensions } from 'react-native';

const WIDE_FROM = 900;

/** How much room the screen has. Phone first; wide from 900 px. */
export function useLayout(): { readonly wide: boolean; readonly width: number; readonly height: number } {
  const { width, height } = useWindowDimensions();
  return { wide: width >= WIDE_FROM, width, height };
}
