import { memo } from 'react';
import { G, Line, Path, Text as SvgText } from 'react-native-svg';
import { formatNumber, type Interval } from '@vivid-beacon/core';
import { SVG_FONT } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { sinceTicks, timeTicks } from './trendGeometry';
import { AxisBreak } from './AxisBreak';
import type { Scene } from './trendScene';

interface TrendAxesProps {
  readonly id: string;
  readonly scene: Scene;
  readonly window: Interval;
  readonly zone: string;
  /** Are times counted from a start event? */
  readonly since: boolean;
  readonly width: number;
  readonly height: number;
  /** Where the second axis stands. */
  readonly rightAt: number;
}

/** Decimals that tell neighbouring graduations apart. */
function tickText(tick: number, ticks: readonly number[]): string {
  if (tick === 0) return '0';
  const steps = ticks.filter((each) => each !== tick).map((each) => Math.abs(each - tick));
  const step = steps.length > 0 ? Math.min(...steps) : Math.abs(tick) || 1;
  return formatNumber(tick, Math.max(0, Math.min(6, Math.ceil(-Math.log10(step) - 1e-9))));
}

/** Graduations of values at the left, of a second unit at the right, and of local time below. */
export const TrendAxes = memo(function TrendAxes({
  id,
  scene,
  window,
  zone,
  since,
  width,
  height,
  rightAt,
}: TrendAxesProps) {
  const palette = usePalette();
  const { axes, x } = scene;
  const times = since ? sinceTicks(window, width) : timeTicks(window, zone, width);
  return (
    <>
      {axes.map(({ unit, ticks, at, gap }, k) => {
        const right = k === 1;
        return (
          <G key={unit}>
            <Path
              d={ticks.map((tick) => (right ? `M${rightAt} ${at(tick)}h4` : `M-5 ${at(tick)}H-1`)).join('')}
              stroke={palette.ink2}
              strokeWidth={1}
            />
            {/* By their place, so that a new window moves the words that are there. */}
            {ticks.map((tick, i) => (
              <SvgText
                key={i}
                x={right ? rightAt + 7 : -9}
                y={at(tick) + 4}
                fontFamily={SVG_FONT}
                fontSize={12}
                fill={palette.ink2}
                textAnchor={right ? 'start' : 'end'}
              >
                {tickText(tick, ticks)}
              </SvgText>
            ))}
            {gap && !right && <AxisBreak top={gap.top} width={width} />}
            {axes.length > 1 && (
              <SvgText
                x={right ? rightAt + 7 : -9}
                y={-10}
                fontFamily={SVG_FONT}
                fontSize={12}
                fill={palette.ink2}
                textAnchor={right ? 'start' : 'end'}
              >
                {unit}
              </SvgText>
            )}
          </G>
        );
      })}
      <Line x1={0} x2={width} y1={height} y2={height} stroke={palette.ink} strokeWidth={1.5} />
      <G id={`${id}ticks`}>
        <Path
          d={times.map(({ t }) => `M${x(t).toFixed(1)} ${height}v5`).join('')}
          stroke={palette.ink2}
          strokeWidth={1}
        />
        {times.map(
          ({ t, label }, i) =>
            x(t) < width - 26 && (
              <SvgText
                key={i}
                x={x(t) + 3}
                y={height + 17}
                fontFamily={SVG_FONT}
                fontSize={12}
                fill={palette.ink2}
              >
                {label}
              </SvgText>
            ),
        )}
      </G>
    </>
  );
});
