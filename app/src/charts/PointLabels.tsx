import { Text as SvgText } from 'react-native-svg';
import { SVG_FONT } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { labelPoints } from './labelPoints';
import type { Scene, SceneSeries } from './trendScene';

interface PointLabelsProps {
  readonly scene: Scene;
  /** The subject first. */
  readonly series: readonly SceneSeries[];
  readonly decimals: number;
  readonly width: number;
  readonly height: number;
}

/** Values at the points of a trend's lines, as many as fit. */
export function PointLabels({ scene, series, decimals, width, height }: PointLabelsProps) {
  const palette = usePalette();
  const lines = series.map(({ key, t, v, top, axis }) => ({
    key,
    points: t.flatMap((time, i) =>
      v[i] === null ? [] : [{ x: scene.x(time), y: scene.axes[axis].at(top[i]!), value: v[i] }],
    ),
  }));
  return (
    <>
      {labelPoints(lines, decimals, width, height).map(({ key, x, y, text }) => (
        <SvgText
          key={key}
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
      ))}
    </>
  );
}
