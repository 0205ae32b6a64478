import { memo } from 'react';
import { DateTime } from 'luxon';
import { Path, Rect, Text as SvgText } from 'react-native-svg';
import { bucketEdges, type LevelSpan, steadyZone, hourText, writtenDate } from '@vivid-beacon/core';
import { Hatch } from '../charts/Hatch';
import { spacedOut } from '../charts/spacedOut';
import { starPath } from '@vivid-beacon/core/src/drawing/starPath';
import { timeScale } from '@vivid-beacon/core/src/pictures';
import { SVG_FONTS } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { BORDER, BORDER_Y } from './railLayout';
import type { RailBar } from './railWindows';

interface RailScaleProps {
  readonly id: string;
  /** Bounds of the rail, ms. */
  readonly start: number;
  readonly end: number;
  readonly bar: RailBar;
  readonly tickMs: number;
  readonly zone: string;
  readonly now: number;
  readonly width: number;
  readonly spans: readonly LevelSpan[];
}

const MAX_TICKS = 200;

/** The static part of the rail: border, ticks, labels and levels. */
export const RailScale = memo(function RailScale({
  id,
  start,
  end,
  bar,
  tickMs,
  zone,
  now,
  width,
  spans,
}: RailScaleProps) {
  const palette = usePalette();
  const x = timeScale({ start, end }, Math.max(1, width));
  const edges = bucketEdges({ start, end }, bar, zone);
  const stretches = (level: LevelSpan['level'], height: number): string =>
    spans
      .filter((span) => span.level === level)
      .map((span) => {
        const from = Math.max(0, x(span.start));
        const w = Math.max(1.5, Math.min(width, x(span.end)) - from);
        return `M${from.toFixed(1)} ${BORDER_Y - height - 1}h${w.toFixed(1)}v${height}h${(-w).toFixed(1)}Z`;
      })
      .join('');
  const breaches = spans.filter(({ level }) => level === 'breach');
  const dark = edges
    .slice(0, -1)
    .flatMap((edge, i) => {
      if (!isOdd(edge, bar, zone)) return [];
      const from = Math.max(0, x(edge));
      const w = Math.max(0, Math.min(width, x(edges[i + 1])) - from).toFixed(1);
      return [`M${from.toFixed(1)} ${BORDER_Y + 2.5}h${w}v${BORDER - 5}h-${w}Z`];
    })
    .join('');
  const first = Math.ceil(start / tickMs) * tickMs;
  const count = Math.min(MAX_TICKS, Math.floor((end - start) / tickMs));
  const ticks = Array.from(
    { length: count },
    (_, i) => `M${x(first + i * tickMs).toFixed(1)} ${BORDER_Y + BORDER}v4`,
  ).join('');
  return (
    <>
      {spans
        .filter(({ level }) => level === 'nodata')
        .map((span) => {
          const from = Math.max(0, x(span.start));
          const w = Math.max(1.5, Math.min(width, x(span.end)) - from);
          return (
            <Hatch
              key={span.start}
              id={`${id}n${span.start}`}
              x={from}
              y={BORDER_Y - 10}
              width={w}
              height={9}
            />
          );
        })}
      <Path d={stretches('caution', 3)} fill={palette.caution} />
      <Path d={stretches('breach', 4)} fill={palette.breach} />
      {spacedOut(
        breaches.map((span) => (x(span.start) + x(span.end)) / 2),
        13,
      ).map((at) => (
        <Path key={at} d={starPath(at, BORDER_Y - 16, 7.5, 4.6)} fill={palette.breach} />
      ))}
      <Rect
        x={0.5}
        y={BORDER_Y}
        width={width - 1}
        height={BORDER}
        fill={palette.sheet}
        stroke={palette.ink}
        strokeWidth={1}
      />
      <Path d={dark} fill={palette.ink} />
      <Path d={ticks} stroke={palette.ink2} strokeWidth={0.8} />
      <Hatch id={`${id}f`} x={x(now)} y={BORDER_Y - 1} width={width - x(now)} height={BORDER + 1} />
      {labels(edges, bar, zone, x, width).map(({ at, text }) => (
        <SvgText
          key={at}
          x={at}
          y={BORDER_Y + BORDER + 18}
          fontFamily={SVG_FONTS.medium}
          fontSize={12}
          fill={palette.ink2}
          textAnchor="middle"
        >
          {text}
        </SvgText>
      ))}
    </>
  );
});

/** Every other period is dark, the same ones whatever the rail's ends are. */
function isOdd(edge: number, bar: RailBar, zone: string): boolean {
  const at = DateTime.fromMillis(edge, { zone: steadyZone(zone) });
  if (bar === 'hour') return at.hour % 2 === 1;
  if (bar === 'month') return at.month % 2 === 1;
  const days = Math.floor(at.toUTC(0, { keepLocalTime: true }).toMillis() / 86_400_000);
  return bar === 'day' ? days % 2 === 1 : Math.floor((days + 3) / 7) % 2 === 1;
}

const LABELS = {
  hour: (at: DateTime) => hourText(at.hour),
  day: (at: DateTime) => at.toFormat('ccc'),
  week: (at: DateTime) => writtenDate(at, 'plain'),
  month: (at: DateTime) => at.toFormat('LLL'),
} as const;

function labels(
  edges: readonly number[],
  bar: keyof typeof LABELS,
  zone: string,
  x: (t: number) => number,
  width: number,
) {
  let last = -Infinity;
  return edges.slice(0, -1).flatMap((edge, i) => {
    const at = (Math.max(0, x(edge)) + Math.min(width, x(edges[i + 1]))) / 2;
    const room = x(edges[i + 1]) - x(edge);
    if (room < 0 || at - last < 34 || at < 14 || at > width - 14) return [];
    last = at;
    return [
      {
        at,
        text: LABELS[bar](DateTime.fromMillis(edge, { zone: steadyZone(zone), locale: 'en-GB' })),
      },
    ];
  });
}
