import { Fragment, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Interval } from '@vivid-beacon/core';
import {
  PANEL_HEIGHT,
  plotsOfTrend,
  TREND_HEIGHT,
  trendCaption,
  type TrendData,
} from '@vivid-beacon/core/src/boards';
import { NAMES_FROM } from '@vivid-beacon/core/src/pictures';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { Trend } from '../charts/Trend';
import { Button } from '../components/Button';
import { IconButton } from '../components/IconButton';
import { RulerIcon, ZoomOutIcon } from '../components/icons';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { DrawProps } from './drawProps';
import { drawnWindow } from './drawnWindow';
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
  const { focus, onFocus } = useBoardFilters();
  const [choosing, setChoosing] = useState(false);
  const [stretch, setStretch] = useState<Interval | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  const { series, readout, aligned, leftOut } = data;
  const along = useTimeMarks(data);
  const chosen = series.some(({ key }) => key === picked) ? picked : null;
  const plots = useMemo(() => plotsOfTrend(data, { focus, chosen, along }), [data, focus, chosen, along]);
  const many = plots.length > 1;
  const tools = (zoomed ? TOOL : 0) + (aligned ? 0 : TOOL);
  const isJudged = readout.mark !== 'stacked';
  const caption = `${zoomed && !old ? `${drawnWindow(data)}, ` : ''}${trendCaption(data)}`;
  const subject = series.find(({ key }) => key === chosen);
  return (
    <>
      {plots.map((options, i) => {
        const last = i === plots.length - 1;
        const lines = options.series;
        return (
          <Fragment key={lines[0].answer.unit}>
            {many && (
              <Words as="caption" colour={palette.ink2}>
                {`${lines.map(({ name }) => name).join(', ')}, in ${lines[0].answer.unit || 'no unit'}`}
              </Words>
            )}
            <Trend
              width={width}
              height={many ? PANEL_HEIGHT : TREND_HEIGHT}
              options={options}
              name={many ? `${title}, in ${lines[0].answer.unit || 'no unit'}` : title}
              choosing={choosing}
              panning={zoomed !== null}
              unread={unread}
              onZoom={onZoom}
              // Lines aligned by different dates have no common stretch of time.
              onStretch={aligned ? undefined : setStretch}
              caption={last ? caption : ' '}
              captionRoom={last ? tools : 0}
              onChoose={setPicked}
            />
          </Fragment>
        );
      })}
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
      {series.length > 1 && (width < NAMES_FROM || many) && (
        <TrendLegend
          series={series}
          cumulative={readout.cumulative}
          decimals={data.decimals}
          bands={isJudged ? [readout.band, readout.secondBand] : NO_BANDS}
          chosen={
            chosen ?? series.find(({ assetId }) => focus !== null && assetId === focus)?.key ?? series[0].key
          }
          onChoose={setPicked}
        />
      )}
      {subject?.assetId && subject.assetId !== focus && (
        <View style={styles.focus}>
          <Button
            variant="quiet"
            label={`Focus the board on ${subject.name}`}
            onPress={() => onFocus(subject.assetId!)}
          />
        </View>
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
  focus: { alignItems: 'flex-start' },
  tools: {
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'flex-end',
    marginTop: -32,
    zIndex: 1,
    pointerEvents: 'box-none',
  },
});
