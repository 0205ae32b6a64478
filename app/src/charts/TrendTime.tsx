import { memo } from 'react';
import { G, Path, Text as SvgText } from 'react-native-svg';
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
  const shown = (t: number): boolean => t >= window.start && t < window.end;
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
          <G key={i}>
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
      {/* All marks of a kind are one shape: a window may hold hundreds. */}
      {breaches.length > 0 && (
        <>
          <Path
            d={breaches
              .map(({ start, end }) => starPath((clip(start) + clip(end)) / 2, -11, 8, 4.9))
              .join('')}
            fill={palette.breach}
          />
          <Path
            d={breaches
              .map(({ start, end }) => {
                const from = clip(start);
                return `M${from} ${height}v-4h${Math.max(2, clip(end) - from)}v4Z`;
              })
              .join('')}
            fill={palette.breach}
          />
        </>
      )}
      <Marks
        at={alarms.filter(shown).map(clip)}
        shape={`${height}v-9m0 0l-4 -5h8Z`}
        stroke={palette.ink}
        width={1.2}
        fill={palette.sheet}
      />
      {[true, false].map((still) => (
        <Marks
          key={String(still)}
          at={flags.filter(({ at, open }) => open === still && shown(at)).map(({ at }) => clip(at))}
          shape={`${height}v-19m0 0l8 3.5l-8 3.5`}
          stroke={palette.sea}
          width={1.6}
          fill={still ? palette.sea : palette.sheet}
        />
      ))}
      {remarks.length > 0 && (
        <Path
          d={remarks
            .filter(({ start, end }) => end > window.start && start < window.end)
            .map(({ start, end }) => {
              const from = clip(start);
              return `M${from} -1V-5H${Math.max(from + 4, clip(end))}V-1`;
            })
            .join('')}
          fill="none"
          stroke={palette.sea}
          strokeWidth={2}
        />
      )}
    </>
  );
});

interface MarksProps {
  /** Where they stand, px. */
  readonly at: readonly number[];
  /** What follows the place in the path of one. */
  readonly shape: string;
  readonly stroke: string;
  readonly width: number;
  readonly fill: string;
}

/** Marks of one kind on the line of time. */
function Marks({ at, shape, stroke, width, fill }: MarksProps) {
  if (at.length === 0) return null;
  return (
    <Path
      d={at.map((x) => `M${x} ${shape}`).join('')}
      stroke={stroke}
      strokeWidth={width}
      strokeLinejoin="round"
      fill={fill}
    />
  );
}
