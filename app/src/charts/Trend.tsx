import { useId, useLayoutEffect, useMemo } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { G, Rect } from 'react-native-svg';
import { formatGraduation, type Interval, type StretchRemark } from '@vivid-beacon/core';
import {
  namePlaces,
  nearestIndex,
  trendPlot,
  trendScene,
  type AlongTime,
  type FlagMark,
  type PlotAxis,
  type TrendOptions,
} from '@vivid-beacon/core/src/pictures';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import { moveDrawing } from './moveDrawing';
import { SceneView } from './SceneView';
import { pointText } from './pointText';
import { TrendCursor } from './TrendCursor';
import { trendKeys } from './trendKeys';
import { useTrendPointer } from './useTrendPointer';

/** What lies along the time, with the words that are told of it. */
export interface TrendMarks extends AlongTime {
  readonly remarks: readonly StretchRemark[];
  readonly flags: readonly FlagMark[];
}

export interface TrendProps {
  readonly width: number;
  readonly height: number;
  /** Memoised by the caller: the drawing is made anew with it. */
  readonly options: TrendOptions & { readonly along: TrendMarks };
  /** What is drawn, for screen readers. */
  readonly name: string;
  /** Text under the plot while no point is selected. */
  readonly caption?: string;
  /** Room that it leaves free at its right, px. */
  readonly captionRoom?: number;
  /** Whether dragging with a finger selects a stretch. */
  readonly choosing?: boolean;
  /** Whether one finger pans the view. */
  readonly panning?: boolean;
  /** Whether the last requested window failed to load. */
  readonly unread?: boolean;
  readonly onZoom?: (window: Interval) => void;
  readonly onStretch?: (stretch: Interval) => void;
  /** Chooses a line by its key, where names are at the ends of the lines. */
  readonly onChoose?: (key: string) => void;
}

/** Left edge of the text under the plot, px. */
const TOLD_FROM = 46;
/** Shortest zoom; samples are not closer. */
const MIN_ZOOM_MS = 60_000;

/** Lines over time: the subject changes colour where it leaves its band; gaps stay open. */
export function Trend({
  width,
  height,
  options,
  name,
  caption = ' ',
  captionRoom = 0,
  choosing = false,
  panning = false,
  unread = false,
  onZoom,
  onStretch,
  onChoose,
}: TrendProps) {
  const palette = usePalette();
  const id = useId().replace(/:/g, '');
  const { series, decimals, since, along } = options;
  const { window, zone, now } = series[0].answer;
  const trend = useMemo(() => trendPlot(options, width, height), [options, width, height]);
  const scene = useMemo(() => trendScene(trend), [trend]);
  const { plot, layout, lines, subject, compared, bands, named } = trend;
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
          remarks: along.remarks,
          flags: along.flags,
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
      {[...brokenWords(layout.axes), layout.unbroken].map(
        (words) =>
          words !== null && (
            <Words key={words} as="second" colour={palette.ink2} style={styles.left}>
              {words}
            </Words>
          ),
      )}
      {onChoose && named && (
        <View style={[styles.names, { left: plot.x, top: plot.y }]}>
          {namePlaces(trend).map(({ line, box }) => (
            <Pressable
              key={line.key}
              role="button"
              aria-label={`Choose ${line.name}`}
              aria-pressed={line === subject}
              onPress={() => onChoose(line.key)}
              style={[styles.name, { left: box.x, top: box.y, width: box.width, height: box.height }]}
            />
          ))}
        </View>
      )}
    </View>
  );
}

/** What each broken scale leaves out. */
function brokenWords(axes: readonly PlotAxis[]): string[] {
  const which = axes.length > 1 ? ['left ', 'right '] : [''];
  return axes.flatMap(({ gap }, i) =>
    gap
      ? [`The ${which[i]}scale leaves out ${formatGraduation(gap.from)} to ${formatGraduation(gap.to)}.`]
      : [],
  );
}

const styles = StyleSheet.create({
  // Dragging marks a stretch of time, not text.
  plot: { touchAction: 'pan-y', userSelect: 'none' } as object,
  choosing: { touchAction: 'none', userSelect: 'none', cursor: 'crosshair' } as object,
  drawing: { pointerEvents: 'none' },
  told: { minHeight: 18, paddingLeft: TOLD_FROM },
  left: { paddingLeft: TOLD_FROM },
  names: { position: 'absolute', pointerEvents: 'box-none' },
  name: { position: 'absolute' },
});
