import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Metric } from '@vivid-beacon/core';
import { MetricPick } from '../../assets/MetricPick';
import { Button } from '../../components/Button';
import { Tray } from '../../components/Tray';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface CoursePickProps {
  /** Whose course is drawn. */
  readonly of: Metric;
  /** The asset on and below which the rule watches. */
  readonly under: string;
  readonly onPick: (metric: Metric) => void;
}

/** Whose course is drawn of all the assets that a rule watches, and the choice of another. */
export function CoursePick({ of, under, onPick }: CoursePickProps) {
  const palette = usePalette();
  const [open, setOpen] = useState(false);
  const { name, unit, kind, origin } = of;
  return (
    <View style={styles.row}>
      <Words as="second" colour={palette.ink2} style={styles.words}>
        {`The course is that of ${of.assetName}.`}
      </Words>
      <Button
        variant="quiet"
        label="Another"
        name="Draw the course of another asset"
        onPress={() => setOpen(true)}
      />
      <Tray title="Whose course is drawn" open={open} onClose={() => setOpen(false)}>
        {open && (
          <MetricPick
            name="Asset"
            filter={{ under, name, unit, kind, origin }}
            chosen={of.id}
            onChoose={(metric) => {
              onPick(metric);
              setOpen(false);
            }}
          />
        )}
      </Tray>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 12 },
  words: { flexShrink: 1 },
});
