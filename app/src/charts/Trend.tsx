import { useId, useLayoutEffect, useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { G, Rect } from 'react-native-svg';
import {
  formatGraduation,
  DEFAULT_TREND_SCALE,
  type Interval,
  type LevelSpan,
  type TrendScale,
  type StretchRemark,
  type TargetBand,
  type TrendMark,
} from '@vivid-beacon/core';
import { nearestIndex, trendPlot, trendScene, type TrendSeries } from '@vivid-beacon/core/src/pictures';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { FlagMark } from '@vivid-beacon/core/src/pictures';
import { moveDrawing } from './moveDrawing';
import { SceneView } from './SceneView';
import { pointText } from './pointText';
import { TrendCursor } from './TrendCursor';
import { trendKeys } from './trendKeys';
import { useTrendPointer } from './useTrendPointer';

interface TrendProps {
  readonly width: number;
  readonly height: number;
  readonly series: readonly TrendSeries[];
  readonly band: TargetBand | null;
  /** Band of the second unit. */
  readonly secondBand?: TargetBand | null;
  readonly decimals: number;
  /** What is drawn, for screen readers. */
  readonly name: string;
  readonly mark?: TrendMark;
  readonly cumulative?: boolean;
  readonly scale?: TrendScale;
  /** Whether values are written at the points, as many as fit. */
  readonly labelled?: boolean;
  /** The asset whose line is the subject; default: the first line. */
  readonly focus?: string | null;
  /** Breach spans marked above the plot and on its axis. */
  readonly spans?: readonly LevelSpan[];
  /** Remarks on the asset, each a line over its stretch of time. */
  readonly remarks?: readonly StretchRemark[];
  /** When alarms of the shown metrics were raised, ms. */
  readonly alarms?: readonly number[];
  /** Flags on the shown metrics. */
  readonly flags?: readonly FlagMark[];
  /** The reference line, shifted into the window and dashed. */
  readonly reference?: TrendSeries | null;
  /** Text under the plot while no point is selected. */
  readonly caption?: string;
  /** Room that it leaves free at its right, px. */
  readonly captionRoom?: number;
  /** Whether dragging with a finger selects a stretch. */
  readonly choosing?: boolean;
  /** Whether one finger pans the view. */
  readonly panning?: boolean;
  /** Whether times are counted from a start event instead of dates. */
  readonly since?: boolean;
  /** Whether the last requested window failed to load. */
  readonly unread?: boolean;
  readonly onZoom?: (window: Interval) => void;
  readonly onStretch?: (stretch: Interval) => void;
}

/** Left edge of the text under the plot, px. */
const TOLD_FROM = 46;
const NO_SPANS: readonly LevelSpan[] = [];
const NO_REMARKS: readonly StretchRemark[] = [];
const NO_ALARMS: readonly number[] = [];
const NO_FLAGS: readonly FlagMark[] = [];
/** Shortest zoom; samples are not closer. */
const MIN_ZOOM_MS = 60_000;

/** Lines over time: the subject changes colour where it leaves its band; gaps stay open. */
export function Trend({
  width,
  height,
  series,
  band,
  secondBand = null,
  decimals,
  name,
  mark = 'line',
  cumulative = false,
  scale = DEFAULT_TREND_SCALE,
  labelled = false,
  focus = null,
  spans = NO_SPANS,
  remarks = NO_REMARKS,
  alarms = NO_ALARMS,
  flags = NO_FLAGS,
  reference = null,
  caption = ' ',
  captionRoom = 0,
  choosing = false,
  panning = false,
  since = false,
  unread = false,
  onZoom,
  onStretch,
}: TrendProps) {
  const palette = usePalette();
  const id = useId().replace(/:/g, '');
  const { window, zone, now } = series[0].answer;
  const trend = useMemo(
    () =>
      trendPlot(
        {
          series,
          mark,
          cumulative,
          scale,
          band,
          secondBand,
          decimals,
          labelled,
          focus,
          reference,
          since,
          along: { spans, remarks, alarms, flags },
        },
        width,
        height,
      ),
    [
      series,
      mark,
      cumulative,
      scale,
      band,
      secondBand,
      decimals,
      labelled,
      focus,
      reference,
      since,
      spans,
      remarks,
      alarms,
      flags,
      width,
      height,
    ],
  );
  const scene = useMemo(() => trendScene(trend), [trend]);
  const { plot, layout, lines, subject, compared, bands } = trend;
  const { x } = layout;
  const view = useMemo(() => ({ window, left: plot.x, width: plot.width }), [window, plot.x, plot.width]);
  const zoomTo = (to: Interval): void => {
    if (onZoom && to.end - to.start >= MIN_ZOOM_MS) onZoom(to);
    else moveDrawing(id, view, null);
  };
  // With the data of another window everything stands where it belongs.
  useLayoutEffect(() => moveDrawing(id, view, null), [id, view]);
  // Where that was not to be had, it goes back.
  useLayoutEffect(() => {
    if (unread) moveDrawing(id, view, null);
  }, [id, view, unread]);
  const { cursor, setCursor, dragged, handlers } = useTrendPointer({
    view,
    choosing,
    panning,
    onMove: (to) => moveDrawing(id, view, to),
    onZoom: zoomTo,
    onStretch: onStretch ?? (() => undefined),
  });
  const at = cursor === null ? -1 : nearestIndex(subject.t, subject.v, cursor);
  const told =
    at < 0
      ? null
      : pointText(subject.t[at], {
          series: lines,
          compared,
          bands,
          decimals,
          remarks,
          flags,
          zone,
          now,
          since,
        });
  const onKeyDown = trendKeys({
    line: subject,
    at,
    looking: cursor !== null,
    window,
    setCursor,
    zoomTo: onZoom && zoomTo,
    onWhole: onStretch && (() => onStretch(window)),
  });
  const gap = layout.axes[0]?.gap;
  return (
    <View
      // A drawing walked with the arrow keys; each point is described below it.
      {...({
        onKeyDown,
        ...handlers,
      } as object)}
      tabIndex={0}
      role="group"
      aria-roledescription="trend"
      aria-label={`${name}. Arrow keys walk through its points${onZoom ? ', plus and minus zoom, Enter tells the numbers of what is shown' : ''}.`}
      style={choosing ? styles.choosing : styles.plot}
    >
      {/* Fingers and mouse act on the whole drawing: the browser need not find the shape under them. */}
      <SceneView scene={scene} id={id} style={styles.drawing}>
        <G x={plot.x} y={plot.y}>
          {dragged && (
            <Rect
              x={x(dragged.start)}
              y={0}
              width={Math.max(1, x(dragged.end) - x(dragged.start))}
              height={plot.height}
              fill={palette.sea}
              fillOpacity={0.16}
              stroke={palette.sea}
              strokeWidth={1}
            />
          )}
          {at >= 0 && (
            <TrendCursor
              x={x(subject.t[at])}
              y={layout.axes[subject.axis].at(subject.top[at]!)}
              height={plot.height}
            />
          )}
        </G>
      </SceneView>
      <View role="status" style={[styles.told, { paddingRight: captionRoom }]}>
        <Words as="second" colour={told ? palette.ink : palette.ink2}>
          {told ??
            (series.every(({ answer }) => answer.samples === 0) ? 'No readings in this window' : caption)}
        </Words>
      </View>
      {gap && (
        <Words as="second" colour={palette.ink2} style={styles.left}>
          {`The scale leaves out ${formatGraduation(gap.from)} to ${formatGraduation(gap.to)}.`}
        </Words>
      )}
      {layout.leftOut.length > 0 && (
        <Words as="second" colour={palette.ink2}>
          {`${mark === 'stacked' ? 'Not drawn, because only one unit can be stacked' : 'Not drawn, because a trend has two value axes'}: ${layout.leftOut.join(', ')}`}
        </Words>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  // Dragging marks a stretch of time, not text.
  plot: { touchAction: 'pan-y', userSelect: 'none' } as object,
  choosing: { touchAction: 'none', userSelect: 'none', cursor: 'crosshair' } as object,
  drawing: { pointerEvents: 'none' },
  told: { minHeight: 18, paddingLeft: TOLD_FROM },
  left: { paddingLeft: TOLD_FROM },
});
