import { useWindowDimensions } from 'react-native';

const WIDE_FROM = 900;

/** Lower than this, heads and rails fold: a laptop at 200 %. */
const LOW_UNDER = 560;

/** How much room the screen has. Phone first; wide from 900 px, low under 560 px. */
export function useLayout(): {
  readonly wide: boolean;
  readonly low: boolean;
  readonly width: number;
  readonly height: number;
} {
  const { width, height } = useWindowDimensions();
  return { wide: width >= WIDE_FROM, low: height < LOW_UNDER, width, height };
}
