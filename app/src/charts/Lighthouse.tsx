import { Defs, G, LinearGradient, Path, Rect, Stop } from 'react-native-svg';
import type { Level } from '@vivid-beacon/core';
import { shapeInk } from '@vivid-beacon/core/src/drawing/palette';
import { usePalette } from '../theme/useTheme';

interface LighthouseProps {
  readonly x: number;
  /** y of its foot. */
  readonly foot: number;
  readonly height: number;
  readonly level: Level;
  /** How far its beam reaches to both sides; no beam where all is well. */
  readonly reach: number;
}

/** One light. Its beam is lit only where something is abnormal. */
export function Lighthouse({ x, foot, height, level, reach }: LighthouseProps) {
  const palette = usePalette();
  const lit = level === 'breach' || level === 'caution';
  const colour = palette[shapeInk(level)];
  const top = foot - height;
  const lamp = top + 15;
  const id = `beam-${Math.round(x)}-${level}`;
  const tower = (y: number): number => 5 + (4 * (y - top)) / height;
  return (
    <G>
      {lit && reach > 0 && (
        <>
          <Defs>
            <LinearGradient
              id={id}
              gradientUnits="userSpaceOnUse"
              x1={x - reach}
              x2={x + reach}
              y1={0}
              y2={0}
            >
              <Stop offset={0} stopColor={colour} stopOpacity={0} />
              <Stop offset={0.5} stopColor={colour} stopOpacity={0.7} />
              <Stop offset={1} stopColor={colour} stopOpacity={0} />
            </LinearGradient>
          </Defs>
          <Path
            d={`M${x} ${lamp}L${x - reach} ${lamp - 16}V${lamp + 12}ZM${x} ${lamp}L${x + reach} ${lamp - 16}V${lamp + 12}Z`}
            fill={`url(#${id})`}
          />
        </>
      )}
      <Path
        d={`M${x - tower(top + 24)} ${top + 24}H${x + tower(top + 24)}L${x + tower(foot)} ${foot}H${x - tower(foot)}Z`}
        fill={palette.sheet}
        stroke={palette.ink}
        strokeWidth={1.5}
        strokeLinejoin="round"
      />
      <Rect
        x={x - 7}
        y={top + 24 + (height - 24) * 0.38}
        width={14}
        height={(height - 24) * 0.24}
        fill={palette.ink}
      />
      <Rect
        x={x - 4.5}
        y={top + 8}
        width={9}
        height={14}
        fill={lit ? colour : palette.sheet}
        stroke={palette.ink}
        strokeWidth={1.3}
      />
      <Path d={`M${x - 8} ${top + 23}H${x + 8}`} stroke={palette.ink} strokeWidth={2} />
      <Path d={`M${x - 6} ${top + 8}L${x} ${top + 1}L${x + 6} ${top + 8}Z`} fill={palette.ink} />
    </G>
  );
}
