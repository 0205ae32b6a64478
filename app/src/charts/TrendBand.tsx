import { memo } from 'react';
import { Path, Rect } from 'react-native-svg';
import type { TargetBand } from '@vivid-beacon/core';
import { shapeColour } from '../theme/palette';
import { usePalette } from '../theme/useTheme';
import type { Channel } from './trendGeometry';
import type { SceneAxis } from './sceneAxis';

interface TrendBandProps {
  readonly band: TargetBand;
  /** It in px, from the bottom up. */
  readonly parts: readonly Channel[];
  readonly axis: SceneAxis;
  readonly width: number;
  readonly height: number;
  /** Of the second unit: it is marked at its own axis, at the right, and tints nothing. */
  readonly second: boolean;
}

/** How far the limits of the second unit reach into the plot. */
const REACH = 34;
const NOTCH = 9;

/** A target band behind the lines of a trend: Clear as a tint, limits as lines, the target with its notch. */
export const TrendBand = memo(function TrendBand({
  band,
  parts,
  axis,
  width,
  height,
  second,
}: TrendBandProps) {
  const palette = usePalette();
  const from = second ? Math.max(0, width - REACH) : 0;
  const { target } = band;
  const y = target === null ? -1 : axis.at(target);
  const shown = target !== null && y >= -0.5 && y <= height + 0.5;
  return (
    <>
      {!second &&
        parts
          .filter(({ level }) => level === 'clear')
          .map((part, i) => (
            <Rect
              key={i}
              x={0}
              y={part.top}
              width={width}
              height={part.bottom - part.top}
              fill={palette.water}
              opacity={0.5}
            />
          ))}
      {parts.slice(1).map((part, i) => {
        const breach = part.level === 'breach' || parts[i].level === 'breach';
        return (
          <Path
            key={i}
            d={`M${from} ${part.bottom}H${width}`}
            stroke={shapeColour(palette, breach ? 'breach' : 'caution')}
            strokeWidth={1.2}
            strokeDasharray={breach ? undefined : '1.5 3'}
          />
        );
      })}
      {shown && (
        <>
          <Path
            d={`M${from} ${y}H${width}`}
            stroke={palette.ink}
            strokeWidth={0.9}
            strokeDasharray="9 3 1.5 3"
          />
          <Path
            d={second ? `M${width - NOTCH} ${y}l${NOTCH} -5v10Z` : `M${NOTCH} ${y}l-${NOTCH} -5v10Z`}
            fill={palette.ink}
          />
        </>
      )}
    </>
  );
});
