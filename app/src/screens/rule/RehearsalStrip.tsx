import type { RehearsalAnswer } from '@vivid-beacon/core';
import Svg, { Path, Rect } from 'react-native-svg';
import { spacedOut } from '../../charts/spacedOut';
import { starPath } from '@vivid-beacon/core/src/drawing/starPath';
import { linePath } from '@vivid-beacon/core/src/drawing/linePath';
import { usePalette } from '../../theme/useTheme';
import { COURSE_HEIGHT, STRIP_HEIGHT } from './stripSizes';
import type { DraggedLimit } from './draggedLimits';
import type { RuleCourse } from './useCourse';

const SQUARES = 15;

interface RehearsalStripProps {
  readonly width: number;
  readonly start: number;
  readonly length: number;
  readonly alarms: RehearsalAnswer['alarms'];
  /** Of the Caution before; drawn half as high. */
  readonly cautions: RehearsalAnswer['alarms'];
  /** Course of the metric above the line of time; null = none. */
  readonly course: Pick<RuleCourse, 't' | 'v' | 'y'> | null;
  readonly limits: readonly Pick<DraggedLimit, 'name' | 'value' | 'level'>[];
}

/** A part of the rehearsed time: where each alarm would have been, under the course with its limits. */
export function RehearsalStrip({
  width,
  start,
  length,
  alarms,
  cautions,
  course,
  limits,
}: RehearsalStripProps) {
  const palette = usePalette();
  if (width === 0) return null;
  const end = start + length;
  const isHere = (alarm: (typeof alarms)[number]): boolean =>
    alarm.start < end && (alarm.end ?? Infinity) > start;
  const here = alarms.filter(isHere);
  const x = (t: number): number => Math.min(1, Math.max(0, (t - start) / length)) * width;
  const top = course ? COURSE_HEIGHT : 0;
  const spanOf = (alarm: (typeof alarms)[number]) => {
    const from = x(alarm.start);
    return { key: alarm.start, from, wide: Math.max(2, x(alarm.end ?? end) - from) };
  };
  const spans = here.map(spanOf);
  const milder = cautions.filter(isHere).map(spanOf);
  return (
    <Svg width={width} height={STRIP_HEIGHT + top} aria-hidden>
      {course && (
        <>
          {spans.map(({ key, from, wide }) => (
            <Rect key={key} x={from} y={0} width={wide} height={top} fill={palette.breachW} />
          ))}
          <Path d={coursePath(course, start, end, x)} fill="none" stroke={palette.ink} strokeWidth={1.2} />
          {limits.map(({ name, value, level }) => (
            <Path
              key={name}
              d={`M0 ${course.y(value)}H${width}`}
              stroke={palette[level === 'caution' ? 'caution' : 'breach']}
              strokeWidth={2}
              strokeDasharray={level === 'caution' ? '2 4' : '6 4'}
            />
          ))}
        </>
      )}
      <Rect x={0.5} y={top + 25} width={width - 1} height={7} fill={palette.sheet} stroke={palette.ink} />
      {Array.from({ length: SQUARES }, (_, i) => (
        <Rect
          key={i}
          x={(i / SQUARES) * width}
          y={top + 27}
          width={width / SQUARES / 2}
          height={3}
          fill={palette.ink}
        />
      ))}
      {milder.map(({ key, from, wide }) => (
        <Rect key={key} x={from} y={top + 22} width={wide} height={2} fill={palette.caution} />
      ))}
      {spans.map(({ key, from, wide }) => (
        <Rect key={key} x={from} y={top + 20} width={wide} height={4} fill={palette.breach} />
      ))}
      {spacedOut(
        here
          .filter((alarm) => alarm.start >= start)
          .map((alarm) => Math.min(width - 7, Math.max(7, x(alarm.start)))),
        14,
      ).map((at) => (
        <Path key={at} d={starPath(at, top + 10, 7, 4.3)} fill={palette.breach} />
      ))}
    </Svg>
  );
}

function coursePath(
  { t, v, y }: Pick<RuleCourse, 't' | 'v' | 'y'>,
  start: number,
  end: number,
  x: (t: number) => number,
): string {
  const from = t.findIndex((each) => each >= start);
  if (from < 0) return '';
  const after = t.findIndex((each) => each >= end);
  const to = after < 0 ? t.length : after;
  return linePath(t.slice(from, to), v.slice(from, to), x, (value) => y(value));
}
