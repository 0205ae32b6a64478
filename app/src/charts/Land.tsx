import { G, Line, Path, Rect } from 'react-native-svg';
import { usePalette } from '../theme/useTheme';
import { hills } from './coastShape';

interface LandProps {
  readonly width: number;
  /** y of the shore line. */
  readonly horizon: number;
  /** Height of the water under it. */
  readonly sea: number;
}

/** Two ranges of hills, a shore line and water. */
export function Land({ width, horizon, sea }: LandProps) {
  const palette = usePalette();
  return (
    <G>
      <Path d={hills(width, horizon, 50, 150, 40)} fill={palette.ground} opacity={0.55} />
      <Path
        d={hills(width, horizon, 24, 78, 190)}
        fill={palette.ground}
        stroke={palette.ink2}
        strokeWidth={1}
      />
      <Rect x={0} y={horizon} width={width} height={sea} fill={palette.water} />
      <Line x1={0} x2={width} y1={horizon} y2={horizon} stroke={palette.ink} strokeWidth={1.5} />
      {[0.03, 0.2, 0.42, 0.58, 0.79].map((at, i) => (
        <Line
          key={at}
          x1={width * at}
          x2={width * (at + 0.11)}
          y1={horizon + 7 + (i % 2) * 6}
          y2={horizon + 7 + (i % 2) * 6}
          stroke={palette.bar}
          strokeWidth={1}
        />
      ))}
    </G>
  );
}
