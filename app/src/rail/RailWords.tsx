import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { localWindow, resolveWindow, shiftWindow, type WindowSpec } from '@vivid-beacon/core';
import { IconButton } from '../components/IconButton';
import { BackIcon, OnIcon } from '../components/icons';
import { WordRow } from '../components/WordRow';
import { useLayout } from '../hooks/useLayout';
import { CustomWindow } from './CustomWindow';
import { RAIL_WINDOWS, RAIL_WORDS, railWord, type RailWord } from './railWindows';

interface RailWordsProps {
  readonly window: WindowSpec;
  readonly zone: string;
  readonly now: number;
  readonly onChange: (window: WindowSpec) => void;
}

/** The window by word, one on or back, or typed in. */
export function RailWords({ window: spec, zone, now, onChange }: RailWordsProps) {
  const { wide } = useLayout();
  const [asking, setAsking] = useState(false);
  const resolved = resolveWindow(spec, now, zone);
  const choose = (word: RailWord): void => {
    if (word === 'custom') setAsking(true);
    else onChange(RAIL_WINDOWS[word]);
  };
  const shift = (step: number): void => onChange(localWindow(shiftWindow(spec, step, now, zone), zone));
  return (
    <View style={[styles.words, wide && styles.wordsWide]}>
      <IconButton icon={BackIcon} name="Window before" onPress={() => shift(-1)} />
      <View style={styles.row}>
        <WordRow name="Window" options={RAIL_WORDS} chosen={railWord(spec)} onChoose={choose} />
      </View>
      <IconButton icon={OnIcon} name="Window after" disabled={resolved.end > now} onPress={() => shift(1)} />
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
  words: { flexDirection: 'row', alignItems: 'center', marginHorizontal: -14 },
  wordsWide: { justifyContent: 'flex-end' },
  row: { flexShrink: 1 },
});
