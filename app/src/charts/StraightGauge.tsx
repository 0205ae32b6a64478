import Svg, { Path, Rect } from 'react-native-svg';
import {
  LEVEL_WORDS,
  formatNumber,
  sectorsOf,
  type Level,
  type ScaleChoice,
  type TargetBand,
} from '@vivid-beacon/core';
import { shapeColour } from '../theme/palette';
import { usePalette } from '../theme/useTheme';
import { valueAxis } from './valueAxis';

interface StraightGaugeProps {
  readonly width: number;
  readonly value: number | null;
  readonly level: Level;
  readonly band: TargetBand | null;
  readonly reference: number | null;
  readonly decimals: number;
  /** Ends are shared by straight gauges under one another, so that their bands line up. */
  readonly scale?: ScaleChoice;
}

const TOP = 16;
const CHANNEL = 11;
const HEIGHT = 42;
const GAP = 1;

/** A gauge laid flat, for rows: sectors by fill, a small beam from above, target below, reference above. */
export function StraightGauge({ width, value, level, band, reference, decimals, scale }: StraightGaugeProps) {
  const palette = usePalette();
  if (width < 40) return null;
  const { low, high, at } = valueAxis(scale ?? null, band, [value ?? NaN], [0, width]);
  const toX = (x: number): number => Math.min(width - 3, Math.max(3, at(x)));
  const sectors = band ? sectorsOf(band, low, high) : [{ from: low, to: high, level: 'clear' as const }];
  const edges = (from: number, to: number): { x: number; w: number } => {
    const [a, b] = [at(from), at(to)].sort((m, n) => m - n);
    const x = a <= 0 ? 0 : a + GAP;
    return { x, w: Math.max(0, (b >= width ? width : b - GAP) - x) };
  };
  const roomy = width >= 100;
  const colour = level === 'caution' || level === 'breach' ? shapeColour(palette, level) : palette.beam;
  const spoken =
    value === null ? LEVEL_WORDS.nodata : `${formatNumber(value, decimals)}, ${LEVEL_WORDS[level]}`;
  return (
    <Svg width={width} height={HEIGHT} role="img" aria-label={spoken}>
      {sectors.map(({ from, to, level: sector }) => {
        const { x, w } = edges(from, to);
        if (sector === 'breach')
          return <Rect key={from} x={x} y={TOP} width={w} height={CHANNEL} fill={palette.breach} />;
        if (sector === 'caution') {
          return (
            <Path
              key={from}
              d={`M${x} ${TOP}h${w}v${CHANNEL / 2}h${-w}Z`}
              fill={palette.caution}
              stroke="none"
            />
          );
        }
        return (
          <Path
            key={from}
            d={`M${x} ${TOP + 0.5}h${w}M${x} ${TOP + CHANNEL - 0.5}h${w}`}
            stroke={palette.clear}
            strokeWidth={1}
            fill="none"
          />
        );
      })}
      {sectors.map(({ from, to, level: sector }) => {
        if (sector === 'breach') return null;
        const { x, w } = edges(from, to);
        return sector === 'caution' ? (
          <Rect
            key={from}
            x={x}
            y={TOP + CHANNEL / 2}
            width={w}
            height={CHANNEL / 2}
            fill={palette.cautionW}
          />
        ) : (
          <Rect key={from} x={x} y={TOP + 1} width={w} height={CHANNEL - 2} fill={palette.water} />
        );
      })}
      {roomy && band && band.target !== null && band.target >= low && band.target <= high && (
        <Path d={`M${toX(band.target)} ${TOP + CHANNEL}l6 11h-12Z`} fill={palette.ink} />
      )}
      {roomy && reference !== null && reference >= low && reference <= high && (
        <Path
          d={`M${toX(reference)} ${TOP - 1}l5.5 -10h-11Z`}
          fill={palette.sheet}
          stroke={palette.ink}
          strokeWidth={1.3}
        />
      )}
      {value !== null && (
        <>
          <Path d={`M${toX(value) - 2} 1h4L${toX(value) + 8} ${TOP}h-16Z`} fill={colour} opacity={0.6} />
          <Rect
            x={toX(value) - 2}
            y={TOP - 2.5}
            width={4}
            height={CHANNEL + 5}
            fill={palette.ink}
            stroke={palette.sheet}
            strokeWidth={1}
          />
        </>
      )}
    </Svg>
  );
}
