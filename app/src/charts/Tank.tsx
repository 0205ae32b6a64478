import Svg, { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import {
  formatGraduation,
  formatNumber,
  LEVEL_WORDS,
  sectorsOf,
  type Level,
  type ScaleChoice,
  type TargetBand,
} from '@vivid-beacon/core';
import { SVG_FONT } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { BandChannel } from './BandChannel';
import { valueAxis } from './valueAxis';

interface TankProps {
  readonly value: number | null;
  readonly level: Level;
  readonly band: TargetBand | null;
  readonly reference: number | null;
  readonly decimals: number;
  readonly scale: ScaleChoice;
}

const WIDTH = 138;
const HEIGHT = 176;
const TOP = 10;
const LEFT = 52;
const VESSEL = 46;
const CHANNEL = LEFT + VESSEL + 6;

/** An upright gauge: a vessel filled to its value, with the band beside it. */
export function Tank({ value, level, band, reference, decimals, scale }: TankProps) {
  const palette = usePalette();
  const bottom = HEIGHT - 10;
  const axis = valueAxis(scale, band, [value ?? NaN], [bottom, TOP]);
  const { low, high, at } = axis;
  const inside = (x: number | null): x is number => x !== null && x >= low && x <= high;
  const known = value !== null && level !== 'nodata';
  const surface = known ? at(value) : bottom;
  const spoken = known ? `${formatNumber(value, decimals)}, ${LEVEL_WORDS[level]}` : LEVEL_WORDS.nodata;
  const target = band?.target ?? null;
  const from = scale.reversed ? TOP : bottom;
  return (
    <Svg width={WIDTH} height={HEIGHT} role="img" aria-label={spoken}>
      <G opacity={known ? 1 : 0.38}>
        <Rect
          x={LEFT}
          y={TOP}
          width={VESSEL}
          height={bottom - TOP}
          fill={palette.well}
          stroke={palette.ink}
          strokeWidth={1.5}
        />
        <Rect
          x={LEFT + 1}
          y={Math.min(surface, from)}
          width={VESSEL - 2}
          height={Math.abs(from - surface)}
          fill={palette.water}
        />
        {axis.ticks(5).map((tick) => (
          <G key={tick}>
            <Line x1={LEFT - 5} x2={LEFT} y1={at(tick)} y2={at(tick)} stroke={palette.ink2} strokeWidth={1} />
            <SvgText
              x={LEFT - 8}
              y={at(tick) + 4}
              fontFamily={SVG_FONT}
              fontSize={12}
              fill={palette.ink2}
              textAnchor="end"
            >
              {formatGraduation(tick)}
            </SvgText>
          </G>
        ))}
        {band &&
          sectorsOf(band, low, high).map(({ from: a, to: b, level: sector }) => (
            <BandChannel
              key={a}
              x={CHANNEL}
              channel={{ top: Math.min(at(a), at(b)), bottom: Math.max(at(a), at(b)), level: sector }}
            />
          ))}
        {inside(target) && <Path d={`M${CHANNEL + 10} ${at(target)}l11 -6v12Z`} fill={palette.ink} />}
        {inside(reference) && (
          <Path
            d={`M${CHANNEL - 1} ${at(reference)}l-9 -5v10Z`}
            fill={palette.sheet}
            stroke={palette.ink}
            strokeWidth={1.2}
          />
        )}
      </G>
      {known && (
        <Line x1={LEFT - 2} x2={CHANNEL + 9} y1={surface} y2={surface} stroke={palette.ink} strokeWidth={3} />
      )}
    </Svg>
  );
}
