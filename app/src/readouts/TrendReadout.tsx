import { useQuery } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import { decimalsFor, scaleEnds } from '@vivid-beacon/core';
import { useRemarks } from '../api/data';
import { askLevels, useMetrics, useTrend } from '../api/queries';
import { Trend } from '../charts/Trend';
import { Answer } from '../components/Answer';
import { useWidth } from '../hooks/useWidth';
import type { ReadoutProps } from './ReadoutView';

const HEIGHT = 240;
const LONGEST_BY_THE_HOUR_MS = 35 * 86_400_000;

/** A line over the window, with breaches marked above it. */
export function TrendReadout({ readout, window, title }: ReadoutProps) {
  const [width, onLayout] = useWidth();
  const query = useTrend(
    width > 0
      ? { measure: readout.measure, window, bucket: readout.bucket, columns: Math.max(10, width - 64) }
      : null,
  );
  const shown = query.data?.window;
  const asset = useMetrics().data?.find(({ id }) => id === readout.measure.metricId)?.assetId ?? '';
  const remarks = useRemarks(shown ? asset : '', shown?.start ?? 0, shown?.end ?? 1);
  const spans = useQuery({
    queryKey: ['readings', 'levels', readout.measure, readout.band, shown],
    queryFn: ({ signal }) =>
      askLevels(
        {
          measure: readout.measure,
          band: readout.band!,
          start: shown!.start,
          end: shown!.end,
          bucket: shown!.end - shown!.start > LONGEST_BY_THE_HOUR_MS ? 'day' : 'hour',
        },
        signal,
      ),
    enabled: readout.band !== null && shown !== undefined,
    placeholderData: (before) => before,
  });
  return (
    <View onLayout={onLayout}>
      <Answer query={query} reading="Reading the trend">
        {(answer) => (
          <View style={query.isPlaceholderData && styles.old}>
            <Trend
              width={width}
              height={HEIGHT}
              answer={answer}
              band={readout.band}
              decimals={
                readout.decimals ??
                Math.min(
                  3,
                  decimalsFor(
                    ...scaleEnds(
                      readout.band,
                      answer.v.filter((x) => x !== null),
                    ),
                  ),
                )
              }
              name={title}
              spans={spans.data}
              remarks={remarks.data}
              caption={`${answer.unit ? `in ${answer.unit}, ` : ''}${answer.until ? `one value for each ${readout.bucket ?? 'hour'}` : 'samples, spikes kept'}`}
            />
          </View>
        )}
      </Answer>
    </View>
  );
}

const styles = StyleSheet.create({ old: { opacity: 0.6 } });
