import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Interval, WindowSpec } from '@vivid-beacon/core';
import { localWindow } from '@vivid-beacon/core';
import { Button } from '../components/Button';
import { MomentField } from '../components/MomentField';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';
import { RelativePick } from '../screens/editor/RelativePick';
import { usePalette } from '../theme/useTheme';

interface CustomWindowProps {
  readonly open: boolean;
  readonly window: WindowSpec;
  readonly resolved: Interval;
  readonly zone: string;
  readonly onClose: () => void;
  readonly onChange: (window: WindowSpec) => void;
}

/** Two local times for an absolute window, or a relative one from the list. */
export function CustomWindow({ open, window, resolved, zone, onClose, onChange }: CustomWindowProps) {
  return (
    <Tray title="Window" open={open} onClose={onClose}>
      {open && <Form window={window} resolved={resolved} zone={zone} onClose={onClose} onChange={onChange} />}
    </Tray>
  );
}

function Form({
  window,
  resolved,
  zone,
  onClose,
  onChange,
}: Pick<CustomWindowProps, 'window' | 'resolved' | 'zone' | 'onClose' | 'onChange'>) {
  const palette = usePalette();
  const [start, setStart] = useState<number | null>(resolved.start);
  const [end, setEnd] = useState<number | null>(resolved.end);
  const wrong = start !== null && end !== null && end <= start ? 'must lie after the start' : undefined;
  const take = (): void => {
    onChange(localWindow({ start: start!, end: end! }, zone));
    onClose();
  };
  return (
    <>
      <RelativePick
        chosen={window}
        onChoose={(relative) => {
          onChange(relative);
          onClose();
        }}
      />
      <Words as="sectionHead" heading={2}>
        Between two times
      </Words>
      <Words
        as="second"
        colour={palette.ink2}
      >{`Local time of ${zone}. The end is not part of the window.`}</Words>
      <View style={styles.fields}>
        <MomentField label="From" value={start} zone={zone} onChange={setStart} />
        <MomentField label="To" value={end} zone={zone} onChange={setEnd} error={wrong} />
      </View>
      <Button
        variant="primary"
        label="Show this window"
        disabled={start === null || end === null || wrong !== undefined}
        onPress={take}
      />
    </>
  );
}

const styles = StyleSheet.create({ fields: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' } });
