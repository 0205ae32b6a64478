import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DateTime } from 'luxon';
import { resolveWindow, sameWindow, windowWords, type WindowSpec } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { PickList } from '../../components/PickList';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { RELATIVE_WINDOWS } from './relativeWindows';

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
      {way === 'relative' && (
        <PickList
          name="Relative window"
          searchFrom={99}
          options={RELATIVE_WINDOWS.map((spec, i) => ({
            value: String(i),
            label: capital(windowWords(spec)),
          }))}
          chosen={window && String(RELATIVE_WINDOWS.findIndex((spec) => sameWindow(spec, window)))}
          onChoose={(i) => onChange(RELATIVE_WINDOWS[Number(i)])}
        />
      )}
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

const FORMAT = "yyyy-MM-dd'T'HH:mm";

function Absolute({ window, zone, now, onChange }: WindowPanelProps) {
  const palette = usePalette();
  const midnight = DateTime.fromMillis(now, { zone }).startOf('day');
  const given = window?.kind === 'absolute' ? window : null;
  const [start, setStart] = useState(given?.start ?? midnight.minus({ days: 7 }).toFormat(FORMAT));
  const [end, setEnd] = useState(given?.end ?? midnight.toFormat(FORMAT));
  const [error, setError] = useState<string | null>(null);
  const take = (): void => {
    const spec: WindowSpec = { kind: 'absolute', start: start.trim(), end: end.trim() };
    try {
      resolveWindow(spec, now, zone);
      setError(null);
      onChange(spec);
    } catch (problem) {
      setError((problem as Error).message);
    }
  };
  return (
    <View style={styles.panel}>
      <Words
        as="second"
        colour={palette.ink2}
      >{`Local time of ${zone}, such as 2026-11-19T06:00 or 2026-11-19. The end is not part of it.`}</Words>
      <View style={styles.fields}>
        <Field label="From" value={start} onChange={setStart} />
        <Field label="To" value={end} onChange={setEnd} error={error ?? undefined} />
      </View>
      <Button label="Use this window" onPress={take} />
    </View>
  );
}

function capital(text: string): string {
  return text[0].toUpperCase() + text.slice(1);
}

const styles = StyleSheet.create({
  panel: { gap: 10 },
  fields: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
});
