import { useEffect, useId, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Rect } from 'react-native-svg';
import {
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
import { usePalette } from '../theme/useTheme';
import { CustomWindow } from './CustomWindow';
import { BORDER, BORDER_Y, HEIGHT } from './railLayout';
import { RailScale } from './RailScale';
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
  /** Told in place of the count of breaches; null = nothing. */
  readonly told?: string | null;
  readonly onChange: (window: WindowSpec) => void;
  /** Tells over what stretch of time spans are wanted. */
  readonly onDomain: (domain: Interval) => void;
  /** Only border and dividers, while a phone's page is scrolled down. */
  readonly folded?: boolean;
}

/** The lower border of a board: it shows and sets the window for everything on it. */
export function TimeRail({
  window: spec,
  zone,
  now,
  spans,
  told = null,
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
          <View role="status" style={styles.count}>
            {told === null && inWindow.length > 0 && <Lamp level="breach" size={17} />}
            <Words as="body" colour={palette.ink2}>
              {told !== null
                ? told
                : inWindow.length === 0
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
              <RailScale
                id={id}
                start={domain.start}
                end={domain.end}
                bar={bar}
                tickMs={tickMs}
                zone={zone}
                now={now}
                width={width}
                spans={spans}
              />
              <Rect
                x={0}
                y={14}
                width={Math.max(0, x(window.start))}
                height={BORDER_Y + BORDER - 14}
                fill={palette.sheet}
                opacity={0.55}
              />
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
