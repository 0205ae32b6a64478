import { Text as SvgText } from 'react-native-svg';
import { SVG_FONT } from '../theme/type';
import { usePalette } from '../theme/useTheme';

/** A number written into a plot, centred on `x` with its base line at `y`. */
export function PlotNumber({
  x,
  y,
  text,
}: {
  readonly x: number;
  readonly y: number;
  readonly text: string;
}) {
  const palette = usePalette();
  return (
    <SvgText
      x={x}
      y={y}
      fontFamily={SVG_FONT}
      fontSize={12}
      fill={palette.ink}
      stroke={palette.sheet}
      strokeWidth={3}
      // The outline lies under the number, so that lines do not cut into it.
      {...({ paintOrder: 'stroke' } as object)}
      textAnchor="middle"
    >
      {text}
    </SvgText>
  );
}
