import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Rect } from 'react-native-svg';
import {
  formatLength,
  formatMoment,
  formatWindow,
  overlapMs,
  type Interval,
  type LevelSpan,
} from '@vivid-beacon/core';
import { timeScale } from '@vivid-beacon/core/src/pictures';
import { timeOf } from '../charts/plotView';
import { Divider } from '../components/Divider';
import { Lamp } from '../components/Lamp';
import { Words } from '../components/Words';
import { useWidth } from '../hooks/useWidth';
import { usePalette } from '../theme/useTheme';
import { BORDER, BORDER_Y, HEIGHT } from './railLayout';
import { RailScale } from './RailScale';
import type { RailBar } from './railWindows';

interface RailTrackProps {
  readonly id: string;
  /** What is set, ms; while a divider is dragged, what it would be is shown instead. */
  readonly resolved: Interval;
  readonly domain: Interval;
  readonly bar: RailBar;
  readonly tickMs: number;
  readonly zone: string;
  readonly now: number;
  readonly spans: readonly LevelSpan[];
  readonly told: string | null;
  readonly folded: boolean;
  readonly onSet: (window: Interval) => void;
}

/** The track of the rail with its two dividers, and the words that follow them. Only this is drawn while one moves. */
export function RailTrack({
  id,
  resolved,
  domain,
  bar,
  tickMs,
  zone,
  now,
  spans,
  told,
  folded,
  onSet,
}: RailTrackProps) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  const [dragged, setDragged] = useState<Interval | null>(null);
  const window = dragged ?? resolved;
  const x = timeScale(domain, Math.max(1, width));
  const breaches = spans.filter(({ level }) => level === 'breach');
  const inWindow = breaches.filter((span) => overlapMs(span, window) > 0);
  const breachMs = inWindow.reduce((sum, span) => sum + overlapMs(span, window), 0);
  const drag = (end: 'start' | 'end', px: number): void => {
    const t = timeOf(
      { window: domain, left: 0, width: Math.max(1, width) },
      Math.min(width, Math.max(0, px)),
    );
    setDragged(
      end === 'start'
        ? { start: Math.min(t, window.end - tickMs), end: window.end }
        : { start: window.start, end: Math.max(t, window.start + tickMs) },
    );
  };
  const done = (): void => {
    if (dragged) onSet(dragged);
    setDragged(null);
  };

  return (
    <>
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
                  : `${formatLength(breachMs)} in Breach`}
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
                onStep={(steps) => onSet({ ...window, [end]: window[end] + steps * tickMs })}
              />
            ))}
          </>
        )}
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  head: { flexDirection: 'row', justifyContent: 'space-between', gap: 10, flexWrap: 'wrap' },
  count: { flexDirection: 'row', gap: 6, alignItems: 'center' },
  track: { height: HEIGHT },
  low: { height: 60, overflow: 'hidden' },
});
