import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { HOUR_MS, formatMoment, formatNumber, formatValue, type Reading } from '@vivid-beacon/core';
import { useTrend } from '../api/queries';
import { Spark } from '../charts/Spark';
import { Answer } from '../components/Answer';
import { NumberButton } from '../components/NumberButton';
import { ProvenanceTray } from '../components/ProvenanceTray';
import { Words } from '../components/Words';
import { useWidth } from '../hooks/useWidth';
import { usePalette } from '../theme/useTheme';
import type { ReadoutProps } from './ReadoutView';
import { StateLine } from './StateLine';
import { useShownReading } from './useShownReading';

const SPARK_HEIGHT = 40;

/** A number with its level, target, change against the window before, and a small trend. */
export function FigureReadout({ readout, window, title }: ReadoutProps) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  const [open, setOpen] = useState(false);
  const { query, decimals } = useShownReading(readout, window);
  const trend = useTrend(
    width > 0 && query.data
      ? { measure: readout.measure, window, bucket: sparkBucket(query.data), columns: Math.max(10, width) }
      : null,
  );
  return (
    <View onLayout={onLayout} style={styles.box}>
      <Answer query={query} reading="Reading the figure">
        {(reading) => (
          <>
            <View style={styles.number}>
              <NumberButton
                as="hero"
                text={reading.value === null ? '–' : formatNumber(reading.value, decimals)}
                unit={reading.unit}
                name={`${title}. How it was made`}
                onPress={() => setOpen(true)}
              />
            </View>
            {(readout.band || reading.level === 'nodata') && (
              <View style={styles.state}>
                <StateLine reading={reading} band={readout.band} decimals={decimals} />
              </View>
            )}
            <Words as="second" colour={palette.ink2}>
              {changeWords(reading, decimals)}
            </Words>
            {trend.data && <Spark width={width} height={SPARK_HEIGHT} answer={trend.data} />}
            <Words as="caption" colour={palette.ink3}>
              {reading.asOf === null
                ? 'no sample'
                : `as of ${formatMoment(reading.asOf, reading.provenance.zone, reading.now)}${reading.partial ? ', unfinished period' : ''}`}
            </Words>
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

/** Samples for a few hours, else a value an hour or a day, so that a small line stays readable. */
function sparkBucket({ provenance: { window } }: Reading): 'hour' | 'day' | null {
  const hours = (window.end - window.start) / HOUR_MS;
  return hours <= 6 ? null : hours <= 24 * 14 ? 'hour' : 'day';
}

/** Change against the window before: "up 3.1 % on 1,204 kg before". */
export function changeWords({ value, previous, unit, partial }: Reading, decimals: number): string {
  if (value === null || previous === null) return 'nothing to compare with';
  const before = `${formatValue(previous, unit, decimals)} ${partial ? 'by this time before' : 'before'}`;
  const change = value - previous;
  if (change === 0) return `the same as ${before}`;
  const way = change > 0 ? 'up' : 'down';
  const share = previous === 0 ? '' : ` (${formatNumber(Math.abs(change / previous) * 100, 1)} %)`;
  return `${way} ${formatNumber(Math.abs(change), decimals)}${share} on ${before}`;
}

const styles = StyleSheet.create({
  box: { gap: 4, alignItems: 'stretch' },
  number: { alignItems: 'flex-start' },
  state: { alignItems: 'flex-start' },
});
