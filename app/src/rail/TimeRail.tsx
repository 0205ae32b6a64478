import { useEffect, useId, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  resolveWindow,
  shiftWindow,
  type Interval,
  type LevelSpan,
  type WindowSpec,
} from '@vivid-beacon/core';
import { localWindow } from '@vivid-beacon/core';
import { IconButton } from '../components/IconButton';
import { BackIcon, OnIcon } from '../components/icons';
import { WordRow } from '../components/WordRow';
import { useLayout } from '../hooks/useLayout';
import { usePalette } from '../theme/useTheme';
import { CustomWindow } from './CustomWindow';
import { RailTrack } from './RailTrack';
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
  const { wide } = useLayout();
  const id = useId().replace(/:/g, '');
  const [asking, setAsking] = useState(false);
  const resolved = resolveWindow(spec, now, zone);
  const domain = railDomain(resolved);
  const { bar, tickMs } = railUnits(resolved);
  const domainStart = Math.floor(domain.start / 3_600_000) * 3_600_000;
  const domainEnd = Math.ceil(domain.end / 3_600_000) * 3_600_000;
  useEffect(() => onDomain({ start: domainStart, end: domainEnd }), [domainStart, domainEnd, onDomain]);

  const choose = (word: RailWord): void => {
    if (word === 'custom') setAsking(true);
    else onChange(RAIL_WINDOWS[word]);
  };
  const shift = (step: number): void => onChange(localWindow(shiftWindow(spec, step, now, zone), zone));
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
  words: { flexDirection: 'row', alignItems: 'center', marginHorizontal: -14 },
  wordsWide: { justifyContent: 'flex-end' },
  row: { flexShrink: 1 },
});
