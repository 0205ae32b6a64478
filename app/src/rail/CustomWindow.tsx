import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DateTime } from 'luxon';
import { resolveWindow, type Interval, type WindowSpec } from '@vivid-beacon/core';
import { Button } from '../components/Button';
import { Field } from '../components/Field';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';

interface CustomWindowProps {
  readonly open: boolean;
  readonly window: WindowSpec;
  readonly resolved: Interval;
  readonly zone: string;
  readonly onClose: () => void;
  readonly onChange: (window: WindowSpec) => void;
}

const FORMAT = "yyyy-MM-dd'T'HH:mm";

/** Two local times for an absolute window. */
export function CustomWindow({ open, resolved, zone, onClose, onChange }: CustomWindowProps) {
  return (
    <Tray title="Window from and to" open={open} onClose={onClose}>
      {open && <Form resolved={resolved} zone={zone} onClose={onClose} onChange={onChange} />}
    </Tray>
  );
}

function Form({
  resolved,
  zone,
  onClose,
  onChange,
}: Pick<CustomWindowProps, 'resolved' | 'zone' | 'onClose' | 'onChange'>) {
  const palette = usePalette();
  const [start, setStart] = useState(DateTime.fromMillis(resolved.start, { zone }).toFormat(FORMAT));
  const [end, setEnd] = useState(DateTime.fromMillis(resolved.end, { zone }).toFormat(FORMAT));
  const [error, setError] = useState<string | null>(null);
  const take = (): void => {
    const window: WindowSpec = { kind: 'absolute', start: start.trim(), end: end.trim() };
    try {
      resolveWindow(window, 0, zone);
    } catch (problem) {
      setError((problem as Error).message);
      return;
    }
    onChange(window);
    onClose();
  };
  return (
    <>
      <Words
        as="second"
        colour={palette.ink2}
      >{`Local time of ${zone}. The end is not part of the window.`}</Words>
      <View style={styles.fields}>
        <Field label="From" value={start} onChange={setStart} />
        <Field label="To" value={end} onChange={setEnd} />
      </View>
      {error && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>
            {error}
          </Words>
        </View>
      )}
      <Button look="main" label="Look at this window" onPress={take} />
    </>
  );
}

const styles = StyleSheet.create({ fields: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' } });
