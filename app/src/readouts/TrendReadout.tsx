import { useMemo, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import {
  BUCKET_WORDS,
  DAY_MS,
  decimalsFor,
  formatWindow,
  scaleEnds,
  sinceWords,
  type Interval,
  type Readout,
} from '@vivid-beacon/core';
import { useRemarks } from '../api/data';
import { useFlagsOnTime } from '../api/flags';
import { askLevels, useAlarms } from '../api/queries';
import { useBoardLook } from '../boards/BoardLookContext';
import { useTrendSeries, type TrendData } from '../boards/useTrendSeries';
import { flagMarks } from '../charts/flagMarks';
import { knownExtent } from '../charts/knownExtent';
import { Trend } from '../charts/Trend';
import type { TrendSeries } from '../charts/trendScene';
import { IconButton } from '../components/IconButton';
import { RulerIcon, ZoomOutIcon } from '../components/icons';
import { Loading } from '../components/Loading';
import { Notice } from '../components/Notice';
import { Words } from '../components/Words';
import { usePainted } from '../hooks/usePainted';
import { useWidth } from '../hooks/useWidth';
import { usePalette } from '../theme/useTheme';
import type { ReadoutProps } from './ReadoutView';
import { StretchTray } from './StretchTray';
import { TrendLegend } from './TrendLegend';

const HEIGHT = 240;
const LONGEST_BY_THE_HOUR_MS = 35 * DAY_MS;
const NAMES_FROM = 420;
const NO_IDS: readonly string[] = [];

/** Lines over the window; a dragged-out stretch tells its numbers and can be zoomed into. */
export function TrendReadout({ readout, title }: ReadoutProps) {
  const palette = usePalette();
  const { focus } = useBoardLook();
  const [width, onLayout] = useWidth();
  const [zoomed, setZoomed] = useState<Interval | null>(null);
  const [choosing, setChoosing] = useState(false);
  const [stretch, setStretch] = useState<Interval | null>(null);
  const data = useTrendSeries(readout, Math.max(0, Math.min(4000, Math.round(width - 64))), zoomed);
  const { series, shown, error } = data;
  const marks = useTimeMarks(data);
  const decimals = useMemo(() => decimalsOf(shown.readout, series ?? []), [shown.readout, series]);
  return (
    <View onLayout={onLayout}>
      {series && series.length > 0 ? (
        <View style={data.old && styles.old}>
          <Trend
            width={width}
            height={HEIGHT}
            series={series}
            band={shown.readout.band}
            decimals={decimals}
            name={title}
            mark={shown.readout.mark}
            cumulative={shown.readout.cumulative}
            scale={shown.readout.scale}
            focus={focus}
            reference={data.reference}
            choosing={choosing}
            panning={zoomed !== null}
            since={data.aligned}
            onZoom={setZoomed}
            // Lines laid over one another from different dates on have no stretch of time in common.
            onStretch={data.aligned ? undefined : setStretch}
            caption={captionOf(data)}
            {...marks}
          />
          <View style={styles.tools}>
            {zoomed && (
              <Words as="caption" colour={palette.ink2}>
                {data.aligned
                  ? `${sinceWords(zoomed.start)} to ${sinceWords(zoomed.end)}`
                  : formatWindow(zoomed.start, zoomed.end, series[0].answer.zone, series[0].answer.now)}
              </Words>
            )}
            {zoomed && (
              <IconButton
                icon={ZoomOutIcon}
                name="Back to the whole window"
                onPress={() => setZoomed(null)}
              />
            )}
            {!data.aligned && (
              <IconButton
                icon={RulerIcon}
                name={choosing ? 'Stop choosing a stretch' : 'Choose a stretch by dragging'}
                onPress={() => setChoosing(!choosing)}
                chosen={choosing}
              />
            )}
          </View>
          {data.leftOut.length > 0 && (
            <Words as="second" colour={palette.ink2}>{`Not drawn: ${data.leftOut.join(', ')}`}</Words>
          )}
          {series.length > 1 && width < NAMES_FROM && (
            <TrendLegend
              series={series}
              band={shown.readout.cumulative || shown.readout.mark === 'stacked' ? null : shown.readout.band}
            />
          )}
          <StretchTray
            title={title}
            readout={data.asked}
            stretch={stretch}
            zone={series[0].answer.zone}
            now={series[0].answer.now}
            hours={shown.hours}
            onZoom={(to) => {
              setStretch(null);
              setZoomed(to);
            }}
            onClose={() => setStretch(null)}
          />
        </View>
      ) : error ? (
        <Notice
          kind="error"
          title="This could not be read"
          text={error.message}
          action={{ label: 'Read again', onPress: data.again }}
        />
      ) : series ? (
        <Notice
          kind="empty"
          title={data.leftOut.length > 0 ? 'No line can be drawn so' : 'Nothing in this scope'}
          text={
            data.leftOut.length > 0
              ? `Not drawn: ${data.leftOut.join(', ')}.`
              : 'No metric of the readout lies in it.'
          }
        />
      ) : (
        <Loading what="Reading the trend" />
      )}
    </View>
  );
}

function captionOf({ series, shown, bucket, reference, asked, aligned }: TrendData): string {
  const { unit, until } = series![0].answer;
  const kind =
    until === null
      ? 'samples, spikes kept'
      : `${shown.readout.cumulative ? 'running total, ' : ''}one value for each ${BUCKET_WORDS[bucket ?? 'hour']}`;
  const compared = reference
    ? `, dashed: ${reference.name === 'before' ? 'the window before' : 'the same last year'}`
    : '';
  const counted = aligned ? `, by days since ${asked.align!.attribute}` : '';
  return `${unit ? `in ${unit}, ` : ''}${kind}${counted}${compared}`;
}

function decimalsOf(readout: Readout, series: readonly TrendSeries[]): number {
  if (readout.decimals !== null) return readout.decimals;
  return decimalsFor(
    ...scaleEnds(
      readout.band,
      series.flatMap(({ answer }) => knownExtent(answer.v)),
    ),
  );
}

/** What lies along the time of a trend: breaches of its first line, remarks on its asset, alarms of its metrics. */
function useTimeMarks({ series, shown, asked, aligned, metrics }: TrendData) {
  const { measures, band, groupBy, mark, cumulative, normalise } = asked;
  const { hours } = shown;
  // Counted from different dates, nothing along the time line belongs to all lines.
  const known = aligned ? undefined : series?.[0]?.answer.window;
  // The lines come first; what lies along their time is read once they are seen.
  const window = usePainted(known);
  const start = window?.start ?? 0;
  const end = window?.end ?? 1;
  const measure = measures[0];
  const asset = groupBy ? '' : (metrics.get(measure?.metricId ?? '')?.assetId ?? '');
  const remarks = useRemarks(window ? asset : '', start, end);
  const alarms = useAlarms().data;
  const metricIds = useMemo(() => [...new Set(measures.map(({ metricId }) => metricId))], [measures]);
  const handed = useFlagsOnTime(groupBy || aligned ? NO_IDS : metricIds, window ?? null).data;
  const flags = useMemo(() => flagMarks(handed ?? []), [handed]);
  const judged =
    band !== null && !groupBy && !cumulative && mark !== 'stacked' && normalise === null && !aligned;
  const spans = useQuery({
    queryKey: ['readings', 'levels', measure, band, start, end, hours],
    queryFn: ({ signal }) =>
      askLevels(
        {
          measure,
          band: band!,
          start,
          end,
          bucket: end - start > LONGEST_BY_THE_HOUR_MS ? 'day' : 'hour',
          hours,
        },
        signal,
      ),
    enabled: judged && window !== undefined && measure !== undefined,
    placeholderData: (before) => before,
  });
  const raised = useMemo(() => {
    const ids = new Set(metricIds);
    return (aligned ? [] : [...(alarms?.standing ?? []), ...(alarms?.past ?? [])])
      .filter(({ metricId }) => ids.has(metricId))
      .map(({ raisedAt }) => raisedAt);
  }, [alarms, aligned, metricIds]);
  return { remarks: remarks.data, spans: judged ? spans.data : undefined, alarms: raised, flags };
}

const styles = StyleSheet.create({
  old: { opacity: 0.6 },
  tools: {
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'flex-end',
    marginTop: -32,
    zIndex: 1,
    pointerEvents: 'box-none',
  },
});
