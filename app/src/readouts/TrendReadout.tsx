import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Interval } from '@vivid-beacon/core';
import { TREND_HEIGHT, trendCaption, type TrendData } from '@vivid-beacon/core/src/boards';
import { NAMES_FROM } from '@vivid-beacon/core/src/pictures';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { Trend } from '../charts/Trend';
import { IconButton } from '../components/IconButton';
import { RulerIcon, ZoomOutIcon } from '../components/icons';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { DrawProps } from './drawProps';
import { drawnWindow } from './ReadoutHost';
import { StretchTray } from './StretchTray';
import { TrendLegend } from './TrendLegend';
import { useTimeMarks } from './useTimeMarks';

/** Width of a button beside the caption, px. */
const TOOL = 46;
const NO_BANDS: readonly null[] = [];

/** Lines over the window; a dragged-out stretch tells its numbers and can be zoomed into. */
export function TrendReadout(props: DrawProps<TrendData>) {
  const { data, readout: asked, title, width, zoomed, onZoom, old, unread } = props;
  const palette = usePalette();
  const { focus } = useBoardFilters();
  const [choosing, setChoosing] = useState(false);
  const [stretch, setStretch] = useState<Interval | null>(null);
  const { series, readout, aligned, leftOut } = data;
  const marks = useTimeMarks(data);
  const tools = (zoomed ? TOOL : 0) + (aligned ? 0 : TOOL);
  const isJudged = readout.mark !== 'stacked';
  return (
    <>
      <Trend
        width={width}
        height={TREND_HEIGHT}
        series={series}
        band={readout.band}
        secondBand={readout.secondBand}
        decimals={data.decimals}
        name={title}
        mark={readout.mark}
        cumulative={readout.cumulative}
        scale={readout.scale}
        labelled={readout.pointLabels}
        focus={focus}
        reference={data.reference}
        choosing={choosing}
        panning={zoomed !== null}
        since={aligned}
        unread={unread}
        onZoom={onZoom}
        // Lines aligned by different dates have no common stretch of time.
        onStretch={aligned ? undefined : setStretch}
        caption={`${zoomed && !old ? `${drawnWindow(data)}, ` : ''}${trendCaption(data)}`}
        captionRoom={tools}
        {...marks}
      />
      <View style={styles.tools}>
        {zoomed && (
          <IconButton icon={ZoomOutIcon} name="Back to the whole window" onPress={() => onZoom(null)} />
        )}
        {!aligned && (
          <IconButton
            icon={RulerIcon}
            name={choosing ? 'Stop choosing a stretch' : 'Choose a stretch by dragging'}
            onPress={() => setChoosing(!choosing)}
            chosen={choosing}
          />
        )}
      </View>
      {leftOut.length > 0 && (
        <Words as="second" colour={palette.ink2}>{`Not drawn: ${leftOut.join(', ')}`}</Words>
      )}
      {series.length > 1 && width < NAMES_FROM && (
        <TrendLegend
          series={series}
          cumulative={readout.cumulative}
          bands={isJudged ? [readout.band, readout.secondBand] : NO_BANDS}
        />
      )}
      {stretch && (
        <StretchTray
          title={title}
          readout={asked}
          stretch={stretch}
          zone={data.zone}
          now={data.now}
          hours={data.hours}
          bucket={data.asked.bucket}
          onZoom={(to) => {
            setStretch(null);
            onZoom(to);
          }}
          onClose={() => setStretch(null)}
        />
      )}
    </>
  );
}

const styles = StyleSheet.create({
  tools: {
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'flex-end',
    marginTop: -32,
    zIndex: 1,
    pointerEvents: 'box-none',
  },
});
