import { memo } from 'react';
import { G, Path, Rect, Text as SvgText } from 'react-native-svg';
import type { FlagMark } from './flagMarks';
import type { Interval, LevelSpan, StretchRemark } from '@vivid-beacon/core';
import { SVG_FONT } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { Hatch } from './Hatch';
import { starPath } from './starPath';
import type { Scene } from './trendScene';

interface TrendTimeProps {
  readonly id: string;
  readonly scene: Scene;
  readonly window: Interval;
  readonly width: number;
  readonly height: number;
  readonly gaps: readonly Interval[];
  readonly spans: readonly LevelSpan[];
  readonly remarks: readonly StretchRemark[];
  /** When alarms of the shown metrics were raised, ms. */
  readonly alarms: readonly number[];
  /** Flags on the shown metrics. */
  readonly flags: readonly FlagMark[];
}

/** What a trend marks along its time: gaps, time still to come, breaches, remarks, alarms and flags. */
export const TrendTime = memo(function TrendTime({
  id,
  scene,
  window,
  width,
  height,
  gaps,
  spans,
  remarks,
  alarms,
  flags,
}: TrendTimeProps) {
  const palette = usePalette();
  const clip = (t: number): number => Math.max(0, Math.min(width, scene.x(t)));
  const future = clip(scene.finishedUntil);
  const breaches = spans.filter(
    ({ level, start, end }) => level === 'breach' && end > window.start && start < window.end,
  );
  return (
    <>
      {gaps.map((gap, i) => {
        const from = clip(gap.start);
        const to = clip(gap.end);
        return (
          <G key={gap.start}>
            <Hatch id={`${id}g${i}`} x={from} y={0} width={to - from} height={height} />
            {to - from > 3 && (
              <Path
                d={`M${from} 0V${height}M${to} 0V${height}`}
                stroke={palette.ink2}
                strokeWidth={1}
                strokeDasharray="2 3"
              />
            )}
            {to - from > 44 && (
              <SvgText
                x={(from + to) / 2}
                y={-8}
                fontFamily={SVG_FONT}
                fontSize={13}
                fill={palette.ink2}
                textAnchor="middle"
              >
                No data
              </SvgText>
            )}
          </G>
        );
      })}
      <Hatch id={`${id}f`} x={future} y={0} width={width - future} height={height} />
      {breaches.map(({ start, end }) => {
        const from = clip(start);
        const to = clip(end);
        return (
          <G key={start}>
            <Path d={starPath((from + to) / 2, -11, 8, 4.9)} fill={palette.breach} />
            <Rect x={from} y={height - 4} width={Math.max(2, to - from)} height={4} fill={palette.breach} />
          </G>
        );
      })}
      {alarms
        .filter((t) => t >= window.start && t < window.end)
        .map((t) => (
          <Path
            key={t}
            d={`M${clip(t)} ${height}v-9m0 0l-4 -5h8Z`}
            stroke={palette.ink}
            strokeWidth={1.2}
            fill={palette.sheet}
          />
        ))}
      {flags
        .filter(({ at }) => at >= window.start && at < window.end)
        .map(({ id: key, at, open }) => (
          <Path
            key={key}
            d={`M${clip(at)} ${height}v-19m0 0l8 3.5l-8 3.5`}
            stroke={palette.sea}
            strokeWidth={1.6}
            strokeLinejoin="round"
            fill={open ? palette.sea : palette.sheet}
          />
        ))}
      {remarks.map(({ id: key, start, end }) => {
        if (end <= window.start || start >= window.end) return null;
        const from = clip(start);
        return (
          <Path
            key={key}
            d={`M${from} -1V-5H${Math.max(from + 4, clip(end))}V-1`}
            fill="none"
            stroke={palette.sea}
            strokeWidth={2}
          />
        );
      })}
    </>
  );
});
