import { StyleSheet, View } from 'react-native';
import Svg, { Path, Rect, Text as SvgText } from 'react-native-svg';
import { scaleLinear } from 'd3-scale';
import { formatNumber, scaleEnds, sectorsOf, type TargetBand } from '@vivid-beacon/core';
import { Divider } from '../components/Divider';
import { useWidth } from '../hooks/useWidth';
import { shapeInk } from '@vivid-beacon/core/src/drawing/palette';
import { SVG_FONTS } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { bandLimits, histogramBars, withBandLimit } from './histogram';

interface BandSetterProps {
  readonly values: readonly number[];
  readonly band: TargetBand;
  readonly decimals: number;
  readonly unit: string;
  readonly onChange: (band: TargetBand) => void;
}

const PLOT = 96;
const CHANNEL = 14;
const FOOT = 56;
const BARS = 28;

/** The target band is set with dividers on the past values themselves. */
export function BandSetter({ values, band, decimals, unit, onChange }: BandSetterProps) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  const [low, high] = scaleEnds(band, values.length > 0 ? [values[0], values[values.length - 1]] : []);
  const x = scaleLinear()
    .domain([low, high])
    .range([0, Math.max(1, width)]);
  const bars = histogramBars(values, low, high, BARS, band);
  const most = Math.max(1, ...bars.map(({ count }) => count));
  const step = 10 ** -decimals;
  const round = (value: number): number => Number((Math.round(value / step) * step).toFixed(decimals));
  const set = (key: Parameters<typeof withBandLimit>[1], value: number): void =>
    onChange(withBandLimit(band, key, round(value)));
  return (
    <View onLayout={onLayout} style={styles.box}>
      {width > 0 && (
        <>
          <Svg width={width} height={PLOT + CHANNEL + FOOT} aria-hidden>
            {bars.map(({ from, to, count, level }) => {
              const h = (count / most) * (PLOT - 6);
              return (
                <Rect
                  key={from}
                  x={x(from) + 1}
                  y={PLOT - h - 2}
                  width={Math.max(1, x(to) - x(from) - 2)}
                  height={h}
                  fill={level === 'clear' ? palette.bar : palette[shapeInk(level)]}
                />
              );
            })}
            {sectorsOf(band, low, high).map(({ from, to, level }) => {
              const w = Math.max(0, x(to) - x(from) - 1);
              if (level === 'breach')
                return (
                  <Rect key={from} x={x(from)} y={PLOT} width={w} height={CHANNEL} fill={palette.breach} />
                );
              const clear = level === 'clear';
              return (
                <Path
                  key={from}
                  d={
                    clear
                      ? `M${x(from)} ${PLOT + 0.5}h${w}v${CHANNEL - 1}h${-w}Z`
                      : `M${x(from)} ${PLOT}h${w}v${CHANNEL / 2}h${-w}Z`
                  }
                  fill={clear ? palette.water : palette.caution}
                  stroke={clear ? palette.clear : 'none'}
                />
              );
            })}
            {band.target !== null && (
              <Path d={`M${x(band.target)} ${PLOT + CHANNEL + 1}l6 10h-12Z`} fill={palette.ink} />
            )}
            <SvgText
              x={0}
              y={PLOT + CHANNEL + FOOT - 4}
              fontFamily={SVG_FONTS.medium}
              fontSize={12}
              fill={palette.ink2}
            >
              {formatNumber(low, decimals)}
            </SvgText>
            <SvgText
              x={width}
              y={PLOT + CHANNEL + FOOT - 4}
              fontFamily={SVG_FONTS.medium}
              fontSize={12}
              fill={palette.ink2}
              textAnchor="end"
            >
              {formatNumber(high, decimals)}
            </SvgText>
          </Svg>
          {bandLimits(band).map(({ key, name, value }) => (
            <Divider
              key={key}
              x={x(value)}
              y={PLOT + CHANNEL + 24}
              leg={PLOT + 10}
              pointing={-1}
              name={name}
              value={value}
              min={low}
              max={high}
              words={`${formatNumber(value, decimals)} ${unit}`}
              onMove={(px) => set(key, x.invert(px))}
              onStep={(steps) => set(key, value + steps * step)}
            />
          ))}
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ box: { height: PLOT + CHANNEL + FOOT } });
