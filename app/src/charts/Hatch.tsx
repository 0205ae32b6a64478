import { Defs, Line, Pattern, Rect } from 'react-native-svg';
import { usePalette } from '../theme/useTheme';

interface HatchProps {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Diagonal hatching: no data, or time still to come. */
export function Hatch({ id, x, y, width, height }: HatchProps) {
  const palette = usePalette();
  if (width <= 0 || height <= 0) return null;
  return (
    <>
      <Defs>
        <Pattern id={id} width={8} height={8} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <Line x1={0} y1={0} x2={0} y2={8} stroke={palette.line2} strokeWidth={1} opacity={0.7} />
        </Pattern>
      </Defs>
      <Rect x={x} y={y} width={width} height={height} fill={`url(#${id})`} />
    </>
  );
}
