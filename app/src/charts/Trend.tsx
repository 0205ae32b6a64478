import { useId, useLayoutEffect, useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { ClipPath, Defs, G, Rect } from 'react-native-svg';
import {
  formatGraduation,
  formatNumber,
  PLAIN_SCALE,
  type Interval,
  type LevelSpan,
  type ScaleChoice,
  type StretchRemark,
  type TargetBand,
  type TrendMark,
} from '@vivid-beacon/core';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import { BandChannel } from './BandChannel';
import { PointLabels } from './PointLabels';
import { tellPoint } from './tellPoint';
import { TrendAxes } from './TrendAxes';
import type { FlagMark } from './flagMarks';
import { knownExtent } from './knownExtent';
import { moveDrawing } from './moveDrawing';
import { channels, nearestIndex, type Channel } from './trendGeometry';
import { TrendBand } from './TrendBand';
import { TrendCursor } from './TrendCursor';
import { labelRoom, TrendLabels } from './TrendLabels';
import { TrendLines } from './TrendLines';
import type { SceneAxis } from './sceneAxis';
import { trendScene, type TrendSeries } from './trendScene';
import { TrendReference } from './TrendReference';
import { trendKeys } from './trendKeys';
import { TrendTime } from './TrendTime';
import { useTrendPointer } from './useTrendPointer';

interface TrendProps {
  readonly width: number;
  readonly height: number;
  readonly series: readonly TrendSeries[];
  readonly band: TargetBand | null;
  /** Of lines in a second unit. */
  readonly secondBand?: TargetBand | null;
  readonly decimals: number;
  /** What is drawn, for screen readers. */
  readonly name: string;
  readonly mark?: TrendMark;
  readonly cumulative?: boolean;
  readonly scale?: ScaleChoice;
  /** Are values written at the points of lines, as many as fit? */
  readonly labelled?: boolean;
  /** The asset whose line is the subject; else the first line is. */
  readonly focus?: string | null;
  /** Breach spans marked above the plot and on its axis. */
  readonly spans?: readonly LevelSpan[];
  /** Remarks on the asset: a line over the stretch of time each is about. */
  readonly remarks?: readonly StretchRemark[];
  /** When alarms of the shown metrics were raised, ms. */
  readonly alarms?: readonly number[];
  /** Flags on the shown metrics. */
  readonly flags?: readonly FlagMark[];
  /** The subject over the time it is compared with, moved into the window: a dashed line. */
  readonly reference?: TrendSeries | null;
  /** Stands under the plot while no point is looked at. */
  readonly caption?: string;
  /** Room that it leaves free at its right, px. */
  readonly captionRoom?: number;
  /** Does a finger that drags choose a stretch? */
  readonly choosing?: boolean;
  /** Does one finger move the view? */
  readonly panning?: boolean;
  /** Are times counted from a start event, and not dates? */
  readonly since?: boolean;
  /** Could the window asked for last not be read? */
  readonly unread?: boolean;
  readonly onZoom?: (window: Interval) => void;
  readonly onStretch?: (stretch: Interval) => void;
}

const TOP = 24;
const BOTTOM = 22;
/** Room for the graduations of values, at least. */
const LEFT = 46;
const DIGIT = 6.2;
const RIGHT = 18;
const SECOND_AXIS = 44;
/** Names stand at the ends of the lines where the plot keeps this much room. */
const NAMES_FROM = 420;
const OVER = 6;
const NO_CHANNELS: readonly Channel[] = [];
const NO_GAPS: readonly Interval[] = [];
const NO_SPANS: readonly LevelSpan[] = [];
const NO_REMARKS: readonly StretchRemark[] = [];
const NO_ALARMS: readonly number[] = [];
const NO_FLAGS: readonly FlagMark[] = [];
/** Nobody zooms deeper than this: no samples lie nearer. */
const SHORTEST_ZOOM_MS = 60_000;

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
  scale = PLAIN_SCALE,
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
  const named = series.length > 1 && width >= NAMES_FROM;
  const twoUnits = new Set(series.map(({ answer }) => answer.unit)).size > 1;
  const rightAt = RIGHT - 6 + (named ? labelRoom(series.map((each) => each.name)) : 0);
  const right = rightAt + 6 + (twoUnits ? SECOND_AXIS : 0);
  const left = useMemo(() => Math.max(LEFT, graduationRoom(series[0])), [series]);
  const plotWidth = Math.max(10, width - left - right);
  const plotHeight = Math.max(10, height - TOP - BOTTOM);
  const judgeable = !cumulative && mark !== 'stacked';
  const judged = judgeable ? band : null;
  const judgedToo = judgeable && twoUnits ? secondBand : null;
  const scene = useMemo(() => {
    const options = {
      window,
      width: plotWidth,
      height: plotHeight,
      mark,
      cumulative,
      scale,
      band: judged,
      secondBand: judgedToo,
    };
    const all = reference ? [...series, reference] : series;
    return trendScene(all, options);
  }, [series, reference, window, plotWidth, plotHeight, mark, cumulative, scale, judged, judgedToo]);
  const { x } = scene;
  const drawn = useMemo(
    () => (reference ? { ...scene, series: scene.series.filter(({ key }) => key !== reference.key) } : scene),
    [scene, reference],
  );
  const shown = drawn.series;
  const compared = reference ? scene.series.find(({ key }) => key === reference.key) : undefined;
  const subject = shown.find(({ assetId }) => focus !== null && assetId === focus) ?? shown[0];
  const leftAxis = scene.axes[0];
  const rightAxis: SceneAxis | undefined = scene.axes[1];
  const parts = useMemo(
    () => [partsOf(judged, leftAxis), partsOf(judgedToo, rightAxis)],
    [judged, judgedToo, leftAxis, rightAxis],
  );
  const view = useMemo(() => ({ window, left, width: plotWidth }), [window, left, plotWidth]);
  const zoomTo = (to: Interval): void => {
    if (onZoom && to.end - to.start >= SHORTEST_ZOOM_MS) onZoom(to);
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
  const bands = [judged, judgedToo];
  const told =
    at < 0
      ? null
      : tellPoint(subject.t[at], {
          series: shown,
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
  return (
    <View
      // A drawing that is walked with the arrow keys; what the keys reach is told below it.
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
      <Svg width={width} height={height} aria-hidden style={styles.drawing}>
        <G x={left} y={TOP}>
          {bands.map(
            (each, k) =>
              each &&
              scene.axes[k] && (
                <TrendBand
                  key={k}
                  band={each}
                  parts={parts[k]}
                  axis={scene.axes[k]}
                  width={plotWidth}
                  height={plotHeight}
                  second={k === 1}
                />
              ),
          )}
          <Defs>
            <ClipPath id={`${id}view`}>
              <Rect x={-4} y={-TOP} width={plotWidth + 8} height={plotHeight + TOP + OVER} />
            </ClipPath>
          </Defs>
          <G clipPath={`url(#${id}view)`}>
            <G id={`${id}moves`}>
              <TrendTime
                id={id}
                scene={scene}
                window={window}
                width={plotWidth}
                height={plotHeight}
                gaps={series.length === 1 ? series[0].answer.gaps : NO_GAPS}
                spans={spans}
                remarks={remarks}
                alarms={alarms}
                flags={flags}
              />
              {compared && <TrendReference d={compared.path} />}
              <TrendLines
                id={id}
                series={shown}
                subject={subject.key}
                parts={parts}
                width={plotWidth}
                decimals={decimals}
              />
              {labelled && mark !== 'columns' && (
                <PointLabels
                  scene={scene}
                  series={[subject, ...shown.filter((each) => each !== subject)]}
                  decimals={decimals}
                  width={plotWidth}
                  height={plotHeight}
                />
              )}
            </G>
          </G>
          <TrendAxes
            id={id}
            scene={scene}
            window={window}
            zone={zone}
            since={since}
            width={plotWidth}
            height={plotHeight}
            rightAt={plotWidth + rightAt}
          />
          {named && (
            <TrendLabels
              id={id}
              scene={drawn}
              subject={subject.key}
              width={plotWidth}
              height={plotHeight}
              bands={bands}
            />
          )}
          {/* Beside its own axis: of two units only the second stands at the right. */}
          {twoUnits
            ? parts[1].map((part, i) => <BandChannel key={i} x={plotWidth + rightAt - 11} channel={part} />)
            : !named && parts[0].map((part, i) => <BandChannel key={i} x={plotWidth + 6} channel={part} />)}
          {dragged && (
            <Rect
              x={x(dragged.start)}
              y={0}
              width={Math.max(1, x(dragged.end) - x(dragged.start))}
              height={plotHeight}
              fill={palette.sea}
              fillOpacity={0.16}
              stroke={palette.sea}
              strokeWidth={1}
            />
          )}
          {at >= 0 && (
            <TrendCursor
              x={x(subject.t[at])}
              y={scene.axes[subject.axis].at(subject.top[at]!)}
              height={plotHeight}
            />
          )}
        </G>
      </Svg>
      <View role="status" style={[styles.told, { paddingRight: captionRoom }]}>
        <Words as="second" colour={told ? palette.ink : palette.ink2}>
          {told ??
            (series.every(({ answer }) => answer.samples === 0) ? 'No readings in this window' : caption)}
        </Words>
      </View>
      {leftAxis?.gap && (
        <Words as="second" colour={palette.ink2} style={styles.left}>
          {`The scale leaves out ${formatGraduation(leftAxis.gap.from)} to ${formatGraduation(leftAxis.gap.to)}.`}
        </Words>
      )}
      {scene.leftOut.length > 0 && (
        <Words as="second" colour={palette.ink2}>
          {`Not drawn, because a trend has two value axes: ${scene.leftOut.join(', ')}`}
        </Words>
      )}
    </View>
  );
}

function partsOf(band: TargetBand | null, axis: SceneAxis | undefined): readonly Channel[] {
  return band && axis ? channels(band, axis.domain, axis.at) : NO_CHANNELS;
}

/** Width of the longest graduation that values as large as these may have, px. */
function graduationRoom({ answer: { v } }: TrendSeries): number {
  const size = Math.max(0, ...knownExtent(v).map(Math.abs));
  // A number this long, of round thousands, or with its power of ten.
  return formatNumber(-size, 0).length * DIGIT + 14;
}

const styles = StyleSheet.create({
  // Dragging marks a stretch of time, not text.
  plot: { touchAction: 'pan-y', userSelect: 'none' } as object,
  choosing: { touchAction: 'none', userSelect: 'none', cursor: 'crosshair' } as object,
  drawing: { pointerEvents: 'none' },
  told: { minHeight: 18, paddingLeft: LEFT },
  left: { paddingLeft: LEFT },
});
