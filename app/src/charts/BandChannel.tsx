import { Rect } from 'react-native-svg';
import { usePalette } from '../theme/useTheme';
import type { Channel } from './trendGeometry';

const WIDTH = 9;

/** A stretch of the band at the right edge of a trend, drawn as on the gauge. */
export function BandChannel({
  x,
  channel: { top, bottom, level },
}: {
  readonly x: number;
  readonly channel: Channel;
}) {
  const palette = usePalette();
  const height = Math.max(0, bottom - top - 1.5);
  if (level === 'breach') return <Rect x={x} y={top} width={WIDTH} height={height} fill={palette.breach} />;
  if (level === 'caution') {
    return (
      <>
        <Rect x={x} y={top} width={WIDTH / 2} height={height} fill={palette.cautionW} />
        <Rect x={x + WIDTH / 2} y={top} width={WIDTH / 2} height={height} fill={palette.caution} />
      </>
    );
  }
  return (
    <Rect
      x={x + 0.5}
      y={top}
      width={WIDTH - 1}
      height={height}
      fill={palette.water}
      stroke={palette.clear}
      strokeWidth={1}
    />
  );
}
