import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { formatMoment, formatValue, LEVEL_WORDS } from '@vivid-beacon/core';
import { Answer } from '../components/Answer';
import { Lamp } from '../components/Lamp';
import { ProvenanceTray } from '../components/ProvenanceTray';
import { Words } from '../components/Words';
import { wordColour } from '../theme/palette';
import { usePalette } from '../theme/useTheme';
import type { ReadoutProps } from './ReadoutView';
import { useShownReading } from './useShownReading';

/** A lamp with its word and the value it stands for. */
export function LampReadout({ readout, window, title }: ReadoutProps) {
  const palette = usePalette();
  const [open, setOpen] = useState(false);
  const { query, decimals } = useShownReading(readout, window);
  return (
    <Answer query={query} reading="Reading the lamp">
      {(reading) => (
        <>
          <Pressable
            role="button"
            aria-label={`${title}: ${LEVEL_WORDS[reading.level]}. How it was made`}
            onPress={() => setOpen(true)}
            style={styles.row}
          >
            <Lamp level={reading.level} size={26} />
            <View style={styles.words}>
              <Words as="bodyStrong" colour={wordColour(palette, reading.level)}>
                {reading.value === null
                  ? LEVEL_WORDS[reading.level]
                  : `${LEVEL_WORDS[reading.level]}, ${formatValue(reading.value, reading.unit, decimals)}`}
              </Words>
              <Words as="second" colour={palette.ink2}>
                {reading.asOf === null
                  ? 'no sample'
                  : `as of ${formatMoment(reading.asOf, reading.provenance.zone, reading.now)}`}
              </Words>
            </View>
          </Pressable>
          <ProvenanceTray
            title={title}
            reading={reading}
            decimals={decimals}
            open={open}
            onClose={() => setOpen(false)}
          />
        </>
      )}
    </Answer>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: 48 },
  words: { flex: 1, minWidth: 0 },
});
