import { useId } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { scaleLinear } from 'd3-scale';
import {
  displayDivisor,
  formatGraduation,
  LEVEL_WORDS,
  type DisplayScale,
  type IndicatorPast,
  type JudgedPeriod,
} from '@vivid-beacon/core';
import { Hatch } from '../../charts/Hatch';
import { starPath } from '@vivid-beacon/core/src/drawing/starPath';
import { useNow } from '../../hooks/useNow';
import { useWidth } from '../../hooks/useWidth';
import { SVG_FONTS } from '../../theme/type';
import { usePalette } from '../../theme/useTheme';

const HEIGHT = 140;
const TOP = 18;
const LEFT = 44;

interface PastColumnsProps {
  readonly past: IndicatorPast;
  readonly name: string;
  readonly display: DisplayScale;
}

/** Periods as columns with the target of each as a notch; a Breach bears a star, a Caution a half disc, a new definition a line; the unfinished one is hatched. */
export function PastColumns({ past, name, display }: PastColumnsProps) {
  const palette = usePalette();
  const now = useNow(60_000);
  const hatch = useId();
  const [width, onLayout] = useWidth();
  const periods = sinceFirst(past.periods, displayDivisor(display));
  const known = periods.flatMap(({ value, target }) => [value, target].filter((x) => x !== null));
  if (known.length === 0) return null;
  const y = scaleLinear()
    .domain([Math.min(0, ...known), Math.max(0, ...known)])
    .nice(4)
    .range([HEIGHT, TOP]);
  const step = Math.max(1, (width - LEFT) / periods.length);
  const bar = Math.max(2, step * 0.68);
  const x = (i: number): number => LEFT + i * step + (step - bar) / 2;
  return (
    <View onLayout={onLayout} style={styles.plot} role="img" aria-label={`${name}: ${countWords(periods)}`}>
      {width > LEFT && (
        <Svg width={width} height={HEIGHT + 4} aria-hidden>
          {y.ticks(4).map((tick) => (
            <SvgText
              key={tick}
              x={LEFT - 6}
              y={y(tick) + 4}
              textAnchor="end"
              fontFamily={SVG_FONTS.medium}
              fontSize={12}
              fill={palette.ink2}
            >
              {formatGraduation(tick)}
            </SvgText>
          ))}
          <Line x1={LEFT} x2={width} y1={y(0)} y2={y(0)} stroke={palette.ink} strokeWidth={1.5} />
          {periods.map(
            (period, i) =>
              period.end > now && (
                <Hatch
                  key={`unfinished ${period.start}`}
                  id={hatch}
                  x={LEFT + i * step}
                  y={TOP}
                  width={step}
                  height={HEIGHT - TOP}
                />
              ),
          )}
          {periods.map((period, i) => (
            <PeriodColumn
              key={period.start}
              period={period}
              x={x(i)}
              width={bar}
              y={y}
              changed={i > 0 && periods[i - 1].version !== period.version}
            />
          ))}
        </Svg>
      )}
    </View>
  );
}

interface PeriodColumnProps {
  readonly period: JudgedPeriod;
  readonly x: number;
  readonly width: number;
  readonly y: (value: number) => number;
  /** Another definition is in force from here on. */
  readonly changed: boolean;
}

function PeriodColumn({ period: { value, target, level }, x, width, y, changed }: PeriodColumnProps) {
  const palette = usePalette();
  const fill = {
    clear: palette.clear,
    caution: palette.caution,
    breach: palette.breach,
    nodata: palette.line2,
  }[level];
  const middle = x + width / 2;
  const top = value === null ? y(0) : Math.min(y(value), y(0));
  return (
    <>
      {changed && (
        <Line
          x1={x - 1}
          x2={x - 1}
          y1={TOP - 14}
          y2={y(0)}
          stroke={palette.ink}
          strokeDasharray="2 3"
          strokeWidth={1.5}
        />
      )}
      {value !== null && (
        <Rect x={x} y={top} width={width} height={Math.max(1, Math.abs(y(value) - y(0)))} fill={fill} />
      )}
      {level === 'breach' && <Path d={starPath(middle, top - 7, 5, 3)} fill={palette.breach} />}
      {level === 'caution' && (
        <Path d={`M${middle} ${top - 11}a4 4 0 0 0 0 8z`} fill={palette.caution} stroke={palette.caution} />
      )}
      {target !== null && (
        <Line
          x1={x - 1}
          x2={x + width + 1}
          y1={y(target)}
          y2={y(target)}
          stroke={palette.ink}
          strokeWidth={2}
        />
      )}
    </>
  );
}

/** From the first period on that has a value, in the scale that is shown; a past without any data tells nothing. */
function sinceFirst(periods: readonly JudgedPeriod[], by: number): JudgedPeriod[] {
  const first = periods.findIndex(({ value }) => value !== null);
  const divide = (value: number | null): number | null => (value === null ? null : value / by);
  return (first < 0 ? [] : periods.slice(first)).map((period) => ({
    ...period,
    value: divide(period.value),
    target: divide(period.target),
  }));
}

function countWords(periods: readonly JudgedPeriod[]): string {
  const counts = (['breach', 'caution', 'clear', 'nodata'] as const).map((level) => {
    const count = periods.filter((period) => period.level === level).length;
    return `${count} ${LEVEL_WORDS[level]}`;
  });
  return `${periods.length} periods, ${counts.join(', ')}`;
}

const styles = StyleSheet.create({ plot: { height: HEIGHT + 8 } });
