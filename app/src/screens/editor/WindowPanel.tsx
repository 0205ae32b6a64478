import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DateTime } from 'luxon';
import { localWindow, resolveWindow, type WindowSpec } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { MomentField } from '../../components/MomentField';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { RelativePick } from './RelativePick';

interface WindowPanelProps {
  readonly window: WindowSpec | null;
  readonly zone: string;
  readonly now: number;
  readonly onChange: (window: WindowSpec | null) => void;
}

const WAYS = [
  { value: 'board', label: "Board's window" },
  { value: 'relative', label: 'Relative' },
  { value: 'absolute', label: 'Absolute' },
] as const;
type Way = (typeof WAYS)[number]['value'];

/** The window of a readout: the board's, relative to now, or between two local times. */
export function WindowPanel({ window, zone, now, onChange }: WindowPanelProps) {
  const [way, setWay] = useState<Way>(
    window === null ? 'board' : window.kind === 'absolute' ? 'absolute' : 'relative',
  );
  const choose = (next: Way): void => {
    setWay(next);
    if (next === 'board') onChange(null);
  };
  return (
    <View style={styles.panel}>
      <WordRow name="Kind of window" options={WAYS} chosen={way} onChoose={choose} />
      {way === 'board' && <BoardWords />}
      {way === 'relative' && <RelativePick chosen={window} onChoose={onChange} />}
      {way === 'absolute' && <Absolute window={window} zone={zone} now={now} onChange={onChange} />}
    </View>
  );
}

function BoardWords() {
  const palette = usePalette();
  return (
    <Words as="body" colour={palette.ink2}>
      The readout follows the time rail of its board.
    </Words>
  );
}

function Absolute({ window, zone, now, onChange }: WindowPanelProps) {
  const palette = usePalette();
  const midnight = DateTime.fromMillis(now, { zone }).startOf('day');
  const given = window?.kind === 'absolute' ? resolveWindow(window, now, zone) : null;
  const [start, setStart] = useState<number | null>(given?.start ?? midnight.minus({ days: 7 }).toMillis());
  const [end, setEnd] = useState<number | null>(given?.end ?? midnight.toMillis());
  const wrong = start !== null && end !== null && end <= start ? 'must lie after the start' : undefined;
  return (
    <View style={styles.panel}>
      <Words
        as="second"
        colour={palette.ink2}
      >{`Local time of ${zone}. The end is not part of the window.`}</Words>
      <View style={styles.fields}>
        <MomentField label="From" value={start} zone={zone} onChange={setStart} />
        <MomentField label="To" value={end} zone={zone} onChange={setEnd} error={wrong} />
      </View>
      <Button
        label="Use this window"
        disabled={start === null || end === null || wrong !== undefined}
        onPress={() => onChange(localWindow({ start: start!, end: end! }, zone))}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: 10 },
  fields: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
});
