import { StyleSheet, View } from 'react-native';
import Svg, { Line, Path, Text as SvgText } from 'react-native-svg';
import { scaleLinear } from 'd3-scale';
import { formatNumber, formatValue } from '@vivid-beacon/core';
import type { RehearsedLimit } from '@vivid-beacon/core/src/alarming';
import { Divider } from '../../components/Divider';
import { Words } from '../../components/Words';
import { useWidth } from '../../hooks/useWidth';
import { SVG_FONTS } from '../../theme/type';
import { usePalette } from '../../theme/useTheme';

interface ThresholdCurveProps {
  readonly curve: readonly RehearsedLimit[];
  /** How often it fires at the limit itself. */
  readonly fires: number;
  readonly limit: number;
  readonly unit: string;
  readonly decimals: number;
  readonly onChange: (limit: number) => void;
}

const PLOT = 84;
const FOOT = 52;

/** How often the rule would fire at every limit; the divider sets the limit on it. */
export function ThresholdCurve({ curve, fires: now, limit, unit, decimals, onChange }: ThresholdCurveProps) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  if (curve.length < 2) return null;
  const low = curve[0].limit;
  const high = curve[curve.length - 1].limit;
  const x = scaleLinear()
    .domain([low, high])
    .range([0, Math.max(1, width)])
    .clamp(true);
  const y = scaleLinear()
    .domain([0, Math.max(1, ...curve.map(({ fires }) => fires))])
    .range([PLOT, 6]);
  const line = curve.map((point) => `${x(point.limit).toFixed(1)} ${y(point.fires).toFixed(1)}`).join('L');
  const step = 10 ** -decimals;
  const set = (value: number): void => onChange(Number((Math.round(value / step) * step).toFixed(decimals)));
  return (
    <View style={styles.curve}>
      <View style={styles.head}>
        <Words as="bodyStrong">{`Limit${unit ? `, ${unit}` : ''}`}</Words>
        <Words
          as="second"
          colour={palette.ink2}
        >{`${formatValue(limit, unit, decimals)} fires ${formatNumber(now, 0)} times`}</Words>
      </View>
      <View onLayout={onLayout} style={styles.plot}>
        {width > 0 && (
          <>
            <Svg width={width} height={PLOT + FOOT} aria-hidden>
              <Path d={`M0 ${PLOT}L${line}L${width} ${PLOT}Z`} fill={palette.breachW} />
              <Path d={`M${line}`} fill="none" stroke={palette.breach} strokeWidth={2} />
              <Line x1={0} x2={width} y1={PLOT} y2={PLOT} stroke={palette.ink} strokeWidth={1.5} />
              {x.ticks(5).map((tick, i, ticks) => (
                <SvgText
                  key={tick}
                  x={x(tick)}
                  y={PLOT + FOOT - 4}
                  fontFamily={SVG_FONTS.medium}
                  fontSize={12}
                  fill={palette.ink2}
                  textAnchor={
                    x(tick) < 14 ? 'start' : i === ticks.length - 1 && x(tick) > width - 14 ? 'end' : 'middle'
                  }
                >
                  {String(tick).replace('-', '\u2212')}
                </SvgText>
              ))}
            </Svg>
            <Divider
              x={x(limit)}
              y={PLOT + 20}
              leg={8}
              pointing={-1}
              name="Limit"
              value={limit}
              min={low}
              max={high}
              words={formatValue(limit, unit, decimals)}
              onMove={(px) => set(x.invert(Math.min(width, Math.max(0, px))))}
              onStep={(steps) => set(limit + steps * step)}
            />
          </>
        )}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  curve: { paddingTop: 12, gap: 4 },
  head: { flexDirection: 'row', justifyContent: 'space-between' },
  plot: { height: PLOT + FOOT },
});
