import { Path } from 'react-native-svg';
import type { Sector } from '@vivid-beacon/core';
import { usePalette } from '../theme/useTheme';
import { ringPath } from './gaugeGeometry';

interface RingSectorProps {
  readonly cx: number;
  readonly cy: number;
  readonly ring: { readonly outer: number; readonly inner: number };
  readonly from: number;
  readonly to: number;
  readonly level: Sector['level'];
}

/** One sector: the worse the level, the fuller the ring, so that colour is never alone. */
export function RingSector({ cx, cy, ring: { outer, inner }, from, to, level }: RingSectorProps) {
  const palette = usePalette();
  if (to <= from) return null;
  const middle = (outer + inner) / 2;
  if (level === 'breach') return <Path d={ringPath(cx, cy, outer, inner, from, to)} fill={palette.breach} />;
  if (level === 'caution') {
    return (
      <>
        <Path d={ringPath(cx, cy, middle, inner, from, to)} fill={palette.cautionW} />
        <Path d={ringPath(cx, cy, outer, middle, from, to)} fill={palette.caution} />
      </>
    );
  }
  return (
    <>
      <Path d={ringPath(cx, cy, outer, inner, from, to)} fill={palette.water} />
      <Path d={ringPath(cx, cy, outer, outer - 1.2, from, to)} fill={palette.clear} />
      <Path d={ringPath(cx, cy, inner + 1.2, inner, from, to)} fill={palette.clear} />
    </>
  );
}
