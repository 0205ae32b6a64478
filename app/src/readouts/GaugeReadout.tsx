import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { formatValue } from '@vivid-beacon/core';
import { Gauge } from '../charts/Gauge';
import { SMALLEST_GAUGE } from '../charts/gaugeGeometry';
import { Answer } from '../components/Answer';
import { ProvenanceTray } from '../components/ProvenanceTray';
import { useWidth } from '../hooks/useWidth';
import { LampReadout } from './LampReadout';
import type { ReadoutProps } from './ReadoutView';
import { StateLine, stateWords } from './StateLine';
import { useShownReading } from './useShownReading';

const LARGEST = 280;

/** A round gauge; its number opens its provenance. Where it would be too small: lamp and figure. */
export function GaugeReadout(props: ReadoutProps) {
  const { readout, window, title } = props;
  const [width, onLayout] = useWidth();
  const [open, setOpen] = useState(false);
  const { query, decimals } = useShownReading(readout, window);
  if (width > 0 && width < SMALLEST_GAUGE) return <LampReadout {...props} />;
  return (
    <View onLayout={onLayout} style={styles.box}>
      <Answer query={query} reading="Reading the gauge">
        {(reading) => (
          <>
            <Pressable
              role="button"
              aria-label={`${title}: ${formatValue(reading.value, reading.unit, decimals)}, ${stateWords(reading, readout.band, decimals)}. How it was made`}
              onPress={() => setOpen(true)}
              style={[styles.gauge, query.isPlaceholderData && styles.old]}
            >
              {width > 0 && (
                <Gauge
                  width={Math.min(width, LARGEST)}
                  value={reading.value}
                  level={reading.level}
                  band={readout.band}
                  reference={reading.previous}
                  unit={reading.unit}
                  decimals={decimals}
                />
              )}
            </Pressable>
            <StateLine reading={reading} band={readout.band} decimals={decimals} />
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
    </View>
  );
}

const styles = StyleSheet.create({
  box: { gap: 4, alignItems: 'stretch' },
  gauge: { alignItems: 'center' },
  old: { opacity: 0.6 },
});
