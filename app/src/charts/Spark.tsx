import Svg, { Path } from 'react-native-svg';
import type { TrendAnswer } from '@vivid-beacon/core';
import { usePalette } from '../theme/useTheme';
import { finishedPart, linePath, timeScale, valueDomain, valueScale } from './trendGeometry';

interface SparkProps {
  readonly width: number;
  readonly height: number;
  readonly answer: TrendAnswer;
}

/** A small trend without axes, beside a figure. */
export function Spark({ width, height, answer }: SparkProps) {
  const palette = usePalette();
  if (width < 20) return null;
  const { t, v } = finishedPart(answer);
  const x = timeScale(answer.window, width);
  const y = valueScale(valueDomain(v, null), height - 4);
  return (
    <Svg width={width} height={height} aria-hidden>
      <Path
        d={linePath(t, v, x, (value) => y(value) + 2)}
        fill="none"
        stroke={palette.ink}
        strokeWidth={1.5}
        strokeLinejoin="round"
      />
    </Svg>
  );
}
