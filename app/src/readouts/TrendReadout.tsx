import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  decimalsFor,
  formatWindow,
  scaleEnds,
  sinceWords,
  type Interval,
  type Readout,
} from '@vivid-beacon/core';
import { useBoardLook } from '../boards/BoardLookContext';
import { useTrendSeries, type TrendData } from '../boards/useTrendSeries';
import { knownExtent } from '../charts/knownExtent';
import { Trend } from '../charts/Trend';
import type { TrendSeries } from '../charts/trendScene';
import { IconButton } from '../components/IconButton';
import { RulerIcon, ZoomOutIcon } from '../components/icons';
import { Loading } from '../components/Loading';
import { Notice } from '../components/Notice';
import { Words } from '../components/Words';
import { useInSight } from '../hooks/useInSight';
import { useRestOutOfSight } from '../hooks/useRestOutOfSight';
import { useWidth } from '../hooks/useWidth';
import { usePalette } from '../theme/useTheme';
import type { ReadoutProps } from './readoutProps';
import { StretchTray } from './StretchTray';
import { trendCaption } from './trendCaption';
import { TrendLegend } from './TrendLegend';
import { useTimeMarks } from './useTimeMarks';

const HEIGHT = 240;
const NAMES_FROM = 420;
/** Width of a button beside the caption, px. */
const TOOL = 46;
const NO_BANDS: readonly null[] = [];

/** Lines over the window; a dragged-out stretch tells its numbers and can be zoomed into. */
export function TrendReadout({ readout, title }: ReadoutProps) {
  const palette = usePalette();
  const { focus } = useBoardLook();
  const [width, onLayout] = useWidth();
  const [place, inSight] = useInSight();
  const [zoomed, setZoomed] = useState<Interval | null>(null);
  const [choosing, setChoosing] = useState(false);
  const [stretch, setStretch] = useState<Interval | null>(null);
  const data = useTrendSeries(readout, Math.max(0, Math.min(4000, Math.round(width - 64))), zoomed);
  const { series, shown, error } = data;
  const marks = useTimeMarks(data);
  const decimals = useMemo(() => decimalsOf(shown.readout, series ?? []), [shown.readout, series]);
  const drawn = (
    <>
      {series && series.length > 0 ? (
        <>
          <View style={data.old && styles.old}>
            <Trend
              width={width}
              height={HEIGHT}
              series={series}
              band={shown.readout.band}
              secondBand={shown.readout.secondBand}
              decimals={decimals}
              name={title}
              mark={shown.readout.mark}
              cumulative={shown.readout.cumulative}
              scale={shown.readout.scale}
              labelled={shown.readout.pointLabels}
              focus={focus}
              reference={data.reference}
              choosing={choosing}
              panning={zoomed !== null}
              since={data.aligned}
              unread={error !== null}
              onZoom={setZoomed}
              // Lines laid over one another from different dates on have no stretch of time in common.
              onStretch={data.aligned ? undefined : setStretch}
              caption={`${zoomed && !data.old ? `${drawnWindow(data)}, ` : ''}${trendCaption(data)}`}
              captionRoom={(zoomed ? TOOL : 0) + (data.aligned ? 0 : TOOL)}
              {...marks}
            />
          </View>
          <View style={styles.tools}>
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
          {error && data.old && (
            <Notice
              kind="error"
              title="The new window could not be read"
              text={`${error.message} Drawn is still ${drawnWindow(data)}.`}
              action={{ label: 'Read again', onPress: data.again }}
            />
          )}
          {data.leftOut.length > 0 && (
            <Words as="second" colour={palette.ink2}>{`Not drawn: ${data.leftOut.join(', ')}`}</Words>
          )}
          {series.length > 1 && width < NAMES_FROM && (
            <TrendLegend
              series={series}
              bands={
                shown.readout.cumulative || shown.readout.mark === 'stacked'
                  ? NO_BANDS
                  : [shown.readout.band, shown.readout.secondBand]
              }
            />
          )}
          {stretch && (
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
          )}
        </>
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
    </>
  );
  const shownNow = useRestOutOfSight(drawn, inSight);
  return (
    <View ref={place} onLayout={onLayout}>
      {shownNow}
    </View>
  );
}

function drawnWindow({ series, aligned }: TrendData): string {
  const { window, zone, now } = series![0].answer;
  return aligned
    ? `${sinceWords(window.start)} to ${sinceWords(window.end)}`
    : formatWindow(window.start, window.end, zone, now);
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
