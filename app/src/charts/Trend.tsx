import { useId, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { ClipPath, Defs, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import {
  formatMoment,
  formatValue,
  levelOf,
  LEVEL_WORDS,
  type LevelSpan,
  type StretchRemark,
  type TargetBand,
  type TrendAnswer,
} from '@vivid-beacon/core';
import { Words } from '../components/Words';
import { shapeColour } from '../theme/palette';
import { SVG_FONT } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { BandChannel } from './BandChannel';
import { Hatch } from './Hatch';
import { starPath } from './starPath';
import {
  channels,
  finishedPart,
  linePath,
  nearestIndex,
  timeScale,
  timeTicks,
  valueDomain,
  valueScale,
} from './trendGeometry';

interface TrendProps {
  readonly width: number;
  readonly height: number;
  readonly answer: TrendAnswer;
  readonly band: TargetBand | null;
  readonly decimals: number;
  /** What is drawn, for screen readers. */
  readonly name: string;
  /** Breach spans marked above the plot and on its axis. */
  readonly spans?: readonly LevelSpan[];
  /** Remarks on the asset: a line over the stretch of time each is about. */
  readonly remarks?: readonly StretchRemark[];
  /** Stands under the plot while no point is looked at. */
  readonly caption?: string;
}

const TOP = 24;
const BOTTOM = 22;
const LEFT = 46;
const RIGHT = 18;

/** One line over time: it changes colour where it leaves its band; gaps stay open. */
export function Trend({
  width,
  height,
  answer,
  band,
  decimals,
  name,
  spans = [],
  remarks = [],
  caption = ' ',
}: TrendProps) {
  const palette = usePalette();
  const id = useId().replace(/:/g, '');
  const [cursor, setCursor] = useState<number | null>(null);
  const plotWidth = Math.max(10, width - LEFT - RIGHT);
  const plotHeight = Math.max(10, height - TOP - BOTTOM);
  const { window, zone, now, unit } = answer;
  const drawn = useMemo(() => {
    const { t, v, finishedUntil } = finishedPart(answer);
    const domain = valueDomain(v, band);
    const x = timeScale(window, plotWidth);
    const y = valueScale(domain, plotHeight);
    return {
      t,
      v,
      finishedUntil,
      domain,
      x,
      y,
      path: linePath(t, v, x, y),
      parts: band ? channels(band, domain, y) : [],
    };
  }, [answer, band, plotWidth, plotHeight, window]);
  const { t, v, finishedUntil, x, y, path, parts } = drawn;
  const at = cursor === null ? -1 : nearestIndex(t, v, cursor);
  const future = Math.max(0, Math.min(plotWidth, x(finishedUntil)));
  const move = (step: number): void => {
    const from = at >= 0 ? at : step > 0 ? -1 : t.length;
    for (let i = from + step; i >= 0 && i < t.length; i += step) {
      if (v[i] !== null) {
        setCursor(t[i]);
        return;
      }
    }
  };
  const breaches = spans.filter(
    ({ level, end, start }) => level === 'breach' && end > window.start && start < window.end,
  );
  const noted = at < 0 ? [] : remarks.filter(({ start, end }) => start <= t[at] && t[at] < end);
  const told =
    at < 0
      ? null
      : `${formatMoment(t[at], zone, now)}: ${formatValue(v[at], unit, decimals)}${band ? `, ${LEVEL_WORDS[levelOf(band, v[at])]}` : ''}${noted.map(({ text }) => `. Remark: ${text}`).join('')}`;
  return (
    <View
      // A drawing that is walked with the arrow keys; what the keys reach is told below it.
      {...({
        onKeyDown: (event: KeyboardEvent) => {
          if (event.key === 'ArrowRight') move(1);
          else if (event.key === 'ArrowLeft') move(-1);
          else if (event.key === 'Escape') setCursor(null);
          else return;
          event.preventDefault();
        },
        onPointerMove: (event: PointerEvent) => {
          const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
          setCursor(x.invert(Math.min(plotWidth, Math.max(0, event.clientX - box.left - LEFT))).getTime());
        },
        onPointerLeave: () => setCursor(null),
      } as object)}
      tabIndex={0}
      role="group"
      aria-roledescription="trend"
      aria-label={`${name}. Arrow keys walk through its points.`}
    >
      <Svg width={width} height={height} aria-hidden>
        <Defs>
          {parts.map((part, i) => (
            <ClipPath key={part.level + part.top} id={`${id}c${i}`}>
              <Rect
                x={-4}
                y={i === parts.length - 1 ? -6 : part.top}
                width={plotWidth + 8}
                height={
                  Math.max(0, part.bottom - part.top) + (i === parts.length - 1 ? 6 : 0) + (i === 0 ? 6 : 0)
                }
              />
            </ClipPath>
          ))}
        </Defs>
        <G x={LEFT} y={TOP}>
          {parts
            .filter(({ level }) => level === 'clear')
            .map((part) => (
              <Rect
                key={part.top}
                x={0}
                y={part.top}
                width={plotWidth}
                height={part.bottom - part.top}
                fill={palette.water}
                opacity={0.5}
              />
            ))}
          {answer.gaps.map((gap, i) => {
            const from = Math.max(0, x(gap.start));
            const to = Math.min(plotWidth, x(gap.end));
            return (
              <G key={gap.start}>
                <Hatch id={`${id}g${i}`} x={from} y={0} width={to - from} height={plotHeight} />
                {to - from > 3 && (
                  <Path
                    d={`M${from} 0V${plotHeight}M${to} 0V${plotHeight}`}
                    stroke={palette.ink2}
                    strokeWidth={1}
                    strokeDasharray="2 3"
                  />
                )}
                {to - from > 44 && (
                  <SvgText
                    x={(from + to) / 2}
                    y={-8}
                    fontFamily={SVG_FONT}
                    fontSize={13}
                    fill={palette.ink2}
                    textAnchor="middle"
                  >
                    No data
                  </SvgText>
                )}
              </G>
            );
          })}
          <Hatch id={`${id}f`} x={future} y={0} width={plotWidth - future} height={plotHeight} />
          {y.ticks(plotHeight > 150 ? 5 : 3).map((tick) => (
            <G key={tick}>
              <Path d={`M-5 ${y(tick)}H-1`} stroke={palette.ink2} strokeWidth={1} />
              <SvgText
                x={-9}
                y={y(tick) + 4}
                fontFamily={SVG_FONT}
                fontSize={12}
                fill={palette.ink2}
                textAnchor="end"
              >
                {y.tickFormat(5)(tick).replace('\u002d', '\u2212')}
              </SvgText>
            </G>
          ))}
          {parts.slice(1).map((part, i) => {
            const breach = part.level === 'breach' || parts[i].level === 'breach';
            return (
              <Line
                key={part.bottom}
                x1={0}
                x2={plotWidth}
                y1={part.bottom}
                y2={part.bottom}
                stroke={breach ? palette.breach : palette.caution}
                strokeWidth={1.2}
                strokeDasharray={breach ? undefined : '1.5 3'}
              />
            );
          })}
          {parts.length === 0 ? (
            <Path d={path} fill="none" stroke={palette.ink} strokeWidth={1.8} strokeLinejoin="round" />
          ) : (
            parts.map((part, i) => (
              <Path
                key={part.level + part.top}
                d={path}
                clipPath={`url(#${id}c${i})`}
                fill="none"
                stroke={part.level === 'clear' ? palette.ink : shapeColour(palette, part.level)}
                strokeWidth={{ clear: 1.8, caution: 2.2, breach: 2.8 }[part.level]}
                strokeLinejoin="round"
              />
            ))
          )}
          {breaches.map(({ start, end }) => {
            const from = Math.max(0, x(start));
            const to = Math.min(plotWidth, x(end));
            return (
              <G key={start}>
                <Path d={starPath((from + to) / 2, -11, 8, 4.9)} fill={palette.breach} />
                <Rect
                  x={from}
                  y={plotHeight - 4}
                  width={Math.max(2, to - from)}
                  height={4}
                  fill={palette.breach}
                />
              </G>
            );
          })}
          {remarks.map(({ id: key, start, end }) => {
            const from = Math.max(0, x(start));
            const to = Math.min(plotWidth, x(end));
            if (to < 0 || from > plotWidth) return null;
            return (
              <Path
                key={key}
                d={`M${from} -1V-5H${Math.max(from + 4, to)}V-1`}
                fill="none"
                stroke={palette.sea}
                strokeWidth={2}
              />
            );
          })}
          <Line
            x1={0}
            x2={plotWidth}
            y1={plotHeight}
            y2={plotHeight}
            stroke={palette.ink}
            strokeWidth={1.5}
          />
          {timeTicks(window, zone, plotWidth).map(({ t: tick, label }) => (
            <G key={tick}>
              <Path d={`M${x(tick)} ${plotHeight}v5`} stroke={palette.ink2} strokeWidth={1} />
              {x(tick) < plotWidth - 26 && (
                <SvgText
                  x={x(tick) + 3}
                  y={plotHeight + 17}
                  fontFamily={SVG_FONT}
                  fontSize={12}
                  fill={palette.ink2}
                >
                  {label}
                </SvgText>
              )}
            </G>
          ))}
          {parts.map((part) => (
            <BandChannel key={part.level + part.top} x={plotWidth + 6} channel={part} />
          ))}
          {at >= 0 && (
            <>
              <Line x1={x(t[at])} x2={x(t[at])} y1={0} y2={plotHeight} stroke={palette.ink} strokeWidth={1} />
              <Rect
                x={x(t[at]) - 3.5}
                y={y(v[at]!) - 3.5}
                width={7}
                height={7}
                rx={3.5}
                fill={palette.ink}
                stroke={palette.sheet}
                strokeWidth={1.5}
              />
            </>
          )}
        </G>
      </Svg>
      <View role="status" style={styles.told}>
        <Words as="second" colour={told ? palette.ink : palette.ink2}>
          {told ?? (answer.samples === 0 ? 'No readings in this window' : caption)}
        </Words>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({ told: { minHeight: 18, paddingLeft: LEFT } });
