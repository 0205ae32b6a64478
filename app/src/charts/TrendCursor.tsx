import { Line, Rect } from 'react-native-svg';
import { usePalette } from '../theme/useTheme';

const R = 3.5;

/** The selected time: a line across the plot and a dot on the subject's line. */
export function TrendCursor({
  x,
  y,
  height,
}: {
  readonly x: number;
  readonly y: number;
  readonly height: number;
}) {
  const palette = usePalette();
  return (
    <>
      <Line x1={x} x2={x} y1={0} y2={height} stroke={palette.ink} strokeWidth={1} />
      <Rect
        x={x - R}
        y={y - R}
        width={2 * R}
        height={2 * R}
        rx={R}
        fill={palette.ink}
        stroke={palette.sheet}
        strokeWidth={1.5}
      />
    </>
  );
}
