import { useEffect, useId, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { DateTime } from 'luxon';
import {
  bucketEdges,
  formatLength,
  formatMoment,
  formatWindow,
  overlapMs,
  resolveWindow,
  shiftWindow,
  type Interval,
  type LevelSpan,
  type WindowSpec,
} from '@vivid-beacon/core';
import { Hatch } from '../charts/Hatch';
import { spacedOut } from '../charts/spacedOut';
import { starPath } from '../charts/starPath';
import { timeScale } from '../charts/trendGeometry';
import { localWindow } from '../boards/localWindow';
import { Divider } from '../components/Divider';
import { IconButton } from '../components/IconButton';
import { BackIcon, OnIcon } from '../components/icons';
import { Lamp } from '../components/Lamp';
import { WordRow } from '../components/WordRow';
import { Words } from '../components/Words';
import { useLayout } from '../hooks/useLayout';
import { useWidth } from '../hooks/useWidth';
import { SVG_FONT } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { CustomWindow } from './CustomWindow';
import {
  absoluteWindow,
  RAIL_WINDOWS,
  RAIL_WORDS,
  railDomain,
  railUnits,
  railWord,
  type RailWord,
} from './railWindows';

interface TimeRailProps {
  readonly window: WindowSpec;
  readonly zone: string;
  readonly now: number;
  /** When something on the board was not Clear, over the rail's whole length. */
  readonly spans: readonly LevelSpan[];
  readonly onChange: (window: WindowSpec) => void;
  /** Tells over what stretch of time spans are wanted. */
  readonly onDomain: (domain: Interval) => void;
  /** Only border and dividers, while a phone's page is scrolled down. */
  readonly folded?: boolean;
}

const BORDER_Y = 46;
const BORDER = 9;
const HEIGHT = 78;

/** The lower border of a board: it shows and sets the window for everything on it. */
export function TimeRail({
  window: spec,
  zone,
  now,
  spans,
  onChange,
  onDomain,
  folded = false,
}: TimeRailProps) {
  const palette = usePalette();
  const { wide } = useLayout();
  const id = useId().replace(/:/g, '');
  const [width, onLayout] = useWidth();
  const [asking, setAsking] = useState(false);
  const resolved = resolveWindow(spec, now, zone);
  const [dragged, setDragged] = useState<Interval | null>(null);
  const window = dragged ?? resolved;
  const domain = railDomain(resolved);
  const { bar, tickMs } = railUnits(resolved);
  const domainStart = Math.floor(domain.start / 3_600_000) * 3_600_000;
  const domainEnd = Math.ceil(domain.end / 3_600_000) * 3_600_000;
  useEffect(() => onDomain({ start: domainStart, end: domainEnd }), [domainStart, domainEnd, onDomain]);

  const x = timeScale(domain, Math.max(1, width));
  const edges = bucketEdges(domain, bar, zone);
  const breaches = spans.filter(({ level }) => level === 'breach');
  const inWindow = breaches.filter((span) => overlapMs(span, window) > 0);
  const breachMs = inWindow.reduce((sum, span) => sum + overlapMs(span, window), 0);
  const choose = (word: RailWord): void => {
    if (word === 'custom') setAsking(true);
    else onChange(RAIL_WINDOWS[word]);
  };
  const shift = (step: number): void => onChange(localWindow(shiftWindow(spec, step, now, zone), zone));
  const set = (next: Interval): void => onChange(absoluteWindow(next.start, next.end, tickMs, zone));
  const drag = (end: 'start' | 'end', px: number): void => {
    const t = x.invert(Math.min(width, Math.max(0, px))).getTime();
    setDragged(
      end === 'start'
        ? { start: Math.min(t, window.end - tickMs), end: window.end }
        : { start: window.start, end: Math.max(t, window.start + tickMs) },
    );
  };
  const done = (): void => {
    if (dragged) set(dragged);
    setDragged(null);
  };
  const ticks = width > 0 ? Math.min(200, Math.floor((domain.end - domain.start) / tickMs)) : 0;
  const firstTick = Math.ceil(domain.start / tickMs) * tickMs;

  return (
    <View
      role="region"
      aria-label="Time rail"
      style={[styles.rail, { borderTopColor: palette.line, backgroundColor: palette.sheet }]}
    >
      {!folded && (
        <View style={styles.head}>
          <Words as="bodyStrong">
            {formatWindow(window.start, Math.min(window.end, Math.max(now, window.start + 1)), zone, now)}
          </Words>
          <View style={styles.count}>
            {inWindow.length > 0 && <Lamp level="breach" size={17} />}
            <Words as="body" colour={palette.ink2}>
              {inWindow.length === 0
                ? 'no breach'
                : `${inWindow.length} ${inWindow.length === 1 ? 'breach' : 'breaches'}, ${formatLength(breachMs)}`}
            </Words>
          </View>
        </View>
      )}
      <View onLayout={onLayout} style={[styles.track, folded && styles.low]}>
        {width > 0 && (
          <>
            <Svg width={width} height={HEIGHT} aria-hidden>
              <Rect
                x={x(window.start)}
                y={14}
                width={Math.max(0, x(window.end) - x(window.start))}
                height={BORDER_Y - 14}
                fill={palette.water}
              />
              {spans.map(({ start, end, level }) => {
                const from = Math.max(0, x(start));
                const w = Math.max(1.5, Math.min(width, x(end)) - from);
                if (level === 'clear') return null;
                if (level === 'nodata')
                  return (
                    <Hatch
                      key={start}
                      id={`${id}n${start}`}
                      x={from}
                      y={BORDER_Y - 10}
                      width={w}
                      height={9}
                    />
                  );
                const h = level === 'breach' ? 4 : 3;
                return (
                  <Rect
                    key={start}
                    x={from}
                    y={BORDER_Y - h - 1}
                    width={w}
                    height={h}
                    fill={level === 'breach' ? palette.breach : palette.caution}
                  />
                );
              })}
              {spacedOut(
                breaches.map(({ start, end }) => (x(start) + x(end)) / 2),
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
              {edges.slice(0, -1).map((edge, i) => {
                const from = Math.max(0, x(edge));
                const to = Math.min(width, x(edges[i + 1]));
                return isOdd(edge, bar, zone) ? (
                  <Rect
                    key={edge}
                    x={from}
                    y={BORDER_Y + 2.5}
                    width={Math.max(0, to - from)}
                    height={BORDER - 5}
                    fill={palette.ink}
                  />
                ) : null;
              })}
              {Array.from({ length: ticks }, (_, i) => firstTick + i * tickMs).map((t) => (
                <Line
                  key={t}
                  x1={x(t)}
                  x2={x(t)}
                  y1={BORDER_Y + BORDER}
                  y2={BORDER_Y + BORDER + 4}
                  stroke={palette.ink2}
                  strokeWidth={0.8}
                />
              ))}
              <Hatch id={`${id}f`} x={x(now)} y={BORDER_Y - 1} width={width - x(now)} height={BORDER + 1} />
              <Rect
                x={0}
                y={14}
                width={Math.max(0, x(window.start))}
                height={BORDER_Y + BORDER - 14}
                fill={palette.sheet}
                opacity={0.55}
              />
              {labels(edges, bar, zone, x, width).map(({ at, text }) => (
                <G key={at}>
                  <SvgText
                    x={at}
                    y={BORDER_Y + BORDER + 18}
                    fontFamily={SVG_FONT}
                    fontSize={12}
                    fill={palette.ink2}
                    textAnchor="middle"
                  >
                    {text}
                  </SvgText>
                </G>
              ))}
            </Svg>
            {(['start', 'end'] as const).map((end) => (
              <Divider
                key={end}
                x={x(window[end])}
                y={10}
                leg={BORDER_Y + BORDER - 18}
                pointing={1}
                name={end === 'start' ? 'Start of the window' : 'End of the window'}
                value={window[end]}
                min={Math.round(domain.start)}
                max={Math.round(domain.end)}
                words={formatMoment(window[end], zone, now)}
                onMove={(px) => drag(end, px)}
                onDone={done}
                onStep={(steps) => set({ ...window, [end]: window[end] + steps * tickMs })}
              />
            ))}
          </>
        )}
      </View>
      {!folded && (
        <View style={[styles.words, wide && styles.wordsWide]}>
          <IconButton icon={BackIcon} name="Window before" onPress={() => shift(-1)} />
          <View style={styles.row}>
            <WordRow name="Window" options={RAIL_WORDS} chosen={railWord(spec)} onChoose={choose} />
          </View>
          <IconButton
            icon={OnIcon}
            name="Window after"
            disabled={resolved.end > now}
            onPress={() => shift(1)}
          />
        </View>
      )}
      <CustomWindow
        open={asking}
        window={spec}
        resolved={resolved}
        zone={zone}
        onClose={() => setAsking(false)}
        onChange={onChange}
      />
    </View>
  );
}

/** Every other period is dark, the same ones whatever the rail's ends are. */
function isOdd(edge: number, bar: string, zone: string): boolean {
  const at = DateTime.fromMillis(edge, { zone });
  if (bar === 'hour') return at.hour % 2 === 1;
  if (bar === 'month') return at.month % 2 === 1;
  const days = Math.floor(at.toUTC(0, { keepLocalTime: true }).toMillis() / 86_400_000);
  return bar === 'day' ? days % 2 === 1 : Math.floor((days + 3) / 7) % 2 === 1;
}

const LABEL_FORMAT = { hour: 'HH', day: 'ccc', week: 'd LLL', month: 'LLL' } as const;

function labels(
  edges: readonly number[],
  bar: keyof typeof LABEL_FORMAT,
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
    return [{ at, text: DateTime.fromMillis(edge, { zone, locale: 'en-GB' }).toFormat(LABEL_FORMAT[bar]) }];
  });
}

const styles = StyleSheet.create({
  rail: { borderTopWidth: 1, paddingHorizontal: 20, paddingTop: 8 },
  head: { flexDirection: 'row', justifyContent: 'space-between', gap: 10, flexWrap: 'wrap' },
  count: { flexDirection: 'row', gap: 6, alignItems: 'center' },
  track: { height: HEIGHT },
  low: { height: 60, overflow: 'hidden' },
  words: { flexDirection: 'row', alignItems: 'center', marginHorizontal: -14 },
  wordsWide: { justifyContent: 'flex-end' },
  row: { flexShrink: 1 },
});
