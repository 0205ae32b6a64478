import { useEffect, useId } from 'react';
import { StyleSheet, View } from 'react-native';
import { resolveWindow, type Interval, type LevelSpan, type WindowSpec } from '@vivid-beacon/core';
import { usePalette } from '../theme/useTheme';
import { RailTrack } from './RailTrack';
import { RailWords } from './RailWords';
import { absoluteWindow, railDomain, railUnits } from './railWindows';

interface TimeRailProps {
  readonly window: WindowSpec;
  readonly zone: string;
  readonly now: number;
  /** When something on the board was not Clear, over the rail's whole length. */
  readonly spans: readonly LevelSpan[];
  /** Text in place of the number of breaches; null = none. */
  readonly told?: string | null;
  readonly onChange: (window: WindowSpec) => void;
  /** Reports the stretch of time for which spans are needed. */
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
  const id = useId().replace(/:/g, '');
  const resolved = resolveWindow(spec, now, zone);
  const domain = railDomain(resolved);
  const { bar, tickMs } = railUnits(resolved);
  const domainStart = Math.floor(domain.start / 3_600_000) * 3_600_000;
  const domainEnd = Math.ceil(domain.end / 3_600_000) * 3_600_000;
  useEffect(() => onDomain({ start: domainStart, end: domainEnd }), [domainStart, domainEnd, onDomain]);

  const set = (next: Interval): void => onChange(absoluteWindow(next.start, next.end, tickMs, zone));

  return (
    <View
      role="region"
      aria-label="Time rail"
      style={[styles.rail, { borderTopColor: palette.line, backgroundColor: palette.sheet }]}
    >
      <RailTrack
        id={id}
        resolved={resolved}
        domain={domain}
        bar={bar}
        tickMs={tickMs}
        zone={zone}
        now={now}
        spans={spans}
        told={told}
        folded={folded}
        onSet={set}
      />
      {!folded && <RailWords window={spec} zone={zone} now={now} onChange={onChange} />}
    </View>
  );
}

const styles = StyleSheet.create({
  rail: { borderTopWidth: 1, paddingHorizontal: 20, paddingTop: 8 },
});
