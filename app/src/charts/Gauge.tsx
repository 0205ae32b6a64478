import Svg, { Defs, G, Line, Path, RadialGradient, Stop, Text as SvgText } from 'react-native-svg';
import {
  formatGraduation,
  formatNumber,
  LEVEL_WORDS,
  sectorsOf,
  type Level,
  type ScaleChoice,
  type TargetBand,
} from '@vivid-beacon/core';
import { shapeColour } from '../theme/palette';
import { SVG_FONT, SVG_FONT_STRONG } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { useTurning } from '../hooks/useTurning';
import { gaugeGeometry, graduations, notchPath, onCircle, ringPath, SWEEP, wedgePath } from './gaugeGeometry';
import { GaugeNoData } from './GaugeNoData';
import { RingSector } from './RingSector';
import { valueAxis } from './valueAxis';

/** About the width of a digit of a graduation, px. */
const DIGIT = 5.6;

interface GaugeProps {
  readonly width: number;
  readonly value: number | null;
  readonly level: Level;
  readonly band: TargetBand | null;
  readonly reference: number | null;
  readonly unit: string;
  readonly decimals: number;
  /** Ends, direction and kind of the scale; ends are shared by gauges side by side. */
  readonly scale?: ScaleChoice;
  /** More values on the same scale, each with a letter at its mark. */
  readonly others?: readonly { readonly mark: string; readonly value: number }[];
}

/** Half a sector's gap, in degrees. */
const HALF_GAP = 0.9;

/** A ring of sectors; the value is a beam of light that lands on it. */
export function Gauge({
  width,
  value,
  level,
  band,
  reference,
  unit,
  decimals,
  scale,
  others = [],
}: GaugeProps) {
  const palette = usePalette();
  const g = gaugeGeometry(width, scale?.sectors);
  const shown = [value ?? NaN, reference ?? NaN, ...others.map((each) => each.value)];
  const axis = valueAxis(scale ?? null, band, shown, [-SWEEP, SWEEP]);
  const { low, high, at: toAngle } = axis;
  const at = useTurning(toAngle(value ?? low));
  const dim = value === null || level === 'nodata' ? 0.38 : 1;
  const beam = level === 'caution' || level === 'breach' ? shapeColour(palette, level) : palette.beam;
  const sectors = band ? sectorsOf(band, low, high) : [{ from: low, to: high, level: 'clear' as const }];
  // Between sectors, not at the ends of the dial; reversed, the first sector is the last one drawn.
  const gapBefore = (i: number): boolean => {
    const k = scale?.reversed ? sectors.length - i : i;
    return k > 0 && k < sectors.length;
  };
  const wanted = band?.target ?? null;
  const target = wanted !== null && wanted >= low && wanted <= high ? { at: wanted } : null;
  const id = `beam-${level}-${width}`;
  const spoken =
    value === null ? LEVEL_WORDS.nodata : `${formatNumber(value, decimals)} ${unit}, ${LEVEL_WORDS[level]}`;
  const far = width < 120 ? [17, 9] : [15, 7.5];
  return (
    <Svg width={g.width} height={g.height} role="img" aria-label={spoken}>
      <Defs>
        <RadialGradient id={id} gradientUnits="userSpaceOnUse" cx={g.cx} cy={g.cy} r={g.lit}>
          <Stop offset={0} stopColor={beam} stopOpacity={0.16} />
          <Stop offset={0.5} stopColor={beam} stopOpacity={palette.beamTop / 2} />
          <Stop offset={1} stopColor={beam} stopOpacity={palette.beamTop} />
        </RadialGradient>
      </Defs>
      <G opacity={dim}>
        {g.sectors.own && (
          <Path
            d={ringPath(g.cx, g.cy, g.outer, g.inner, -SWEEP, SWEEP)}
            fill={palette.well}
            stroke={palette.line2}
            strokeWidth={1}
          />
        )}
        {sectors.map(({ from, to, level: sector }, i) => (
          <RingSector
            key={`${from}`}
            cx={g.cx}
            cy={g.cy}
            ring={g.sectors}
            from={Math.min(toAngle(from), toAngle(to)) + (gapBefore(i) ? HALF_GAP : 0)}
            to={Math.max(toAngle(from), toAngle(to)) - (gapBefore(i + 1) ? HALF_GAP : 0)}
            level={sector}
          />
        ))}
        {g.showGraduations && (
          <>
            {sectors.slice(1).map(({ from }) => {
              const [x1, y1] = onCircle(g.cx, g.cy, 0.62 * g.lit, toAngle(from));
              const [x2, y2] = onCircle(g.cx, g.cy, g.lit, toAngle(from));
              return (
                <Line
                  key={from}
                  x1={x1}
                  y1={y1}
                  x2={x2}
                  y2={y2}
                  stroke={palette.line2}
                  strokeWidth={1}
                  strokeDasharray="3 2.5"
                />
              );
            })}
            {graduations(axis).map(({ value: mark, major }) => {
              const [x1, y1] = onCircle(g.cx, g.cy, g.edge + 3, toAngle(mark));
              const [x2, y2] = onCircle(g.cx, g.cy, g.edge + (major ? 8 : 5.5), toAngle(mark));
              return (
                <Line
                  key={mark}
                  x1={x1}
                  y1={y1}
                  x2={x2}
                  y2={y2}
                  stroke={palette.ink2}
                  strokeWidth={major ? 1.3 : 0.8}
                />
              );
            })}
          </>
        )}
        {g.showLabels &&
          graduations(axis)
            // Next to the target's notch a label would lie under it.
            .filter(
              ({ value: mark, major }) =>
                major && (!target || Math.abs(toAngle(mark) - toAngle(target.at)) > 9),
            )
            .map(({ value: mark }) => {
              const [x, y] = onCircle(g.cx, g.cy, g.edge + 19, toAngle(mark));
              // A long one would be cut off at the edge: then it is left out.
              const half = (formatGraduation(mark).length * DIGIT) / 2;
              if (x - half < 0 || x + half > g.width) return null;
              return (
                <SvgText
                  key={mark}
                  x={x}
                  y={y + 4}
                  fontFamily={SVG_FONT}
                  fontSize={12}
                  fill={palette.ink2}
                  textAnchor="middle"
                >
                  {formatGraduation(mark)}
                </SvgText>
              );
            })}
        {target && (
          <Path
            d={notchPath(g.cx, g.cy, g.edge + 1, g.edge + 12, toAngle(target.at), 6)}
            fill={palette.ink}
          />
        )}
        {g.showReference && reference !== null && reference >= low && reference <= high && (
          <Path
            d={notchPath(g.cx, g.cy, g.lit - 1, g.lit - 11, toAngle(reference), 5.5)}
            fill={palette.sheet}
            stroke={palette.ink}
            strokeWidth={1.3}
            strokeLinejoin="round"
          />
        )}
      </G>
      {others.map((other) => {
        const angle = toAngle(other.value);
        const [lx, ly] = onCircle(g.cx, g.cy, g.lit - 12, angle);
        return (
          <G key={other.mark}>
            <Path
              d={ringPath(g.cx, g.cy, g.edge + 2, g.lit - 2, angle - 1.3, angle + 1.3)}
              fill={palette.sheet}
              stroke={palette.ink}
              strokeWidth={1.3}
            />
            <SvgText
              x={lx}
              y={ly + 4}
              fontFamily={SVG_FONT_STRONG}
              fontSize={12}
              fill={palette.ink}
              textAnchor="middle"
            >
              {other.mark}
            </SvgText>
          </G>
        );
      })}
      {value !== null && level !== 'nodata' ? (
        <>
          <Path d={wedgePath(g.cx, g.cy, g.lit - 1.5, at, far[0])} fill={`url(#${id})`} opacity={0.45} />
          <Path d={wedgePath(g.cx, g.cy, g.lit - 1.5, at, far[1])} fill={`url(#${id})`} />
          <Path
            d={ringPath(g.cx, g.cy, g.edge + 3, g.lit - 3, Math.max(-SWEEP, at) - 1.5, at + 1.5)}
            fill={palette.ink}
            stroke={palette.sheet}
            strokeWidth={1.5}
          />
          <SvgText
            x={g.cx}
            y={g.cy + 0.2 * g.radius + 0.36 * g.numeral}
            fontFamily={SVG_FONT_STRONG}
            fontSize={Math.min(g.numeral, (1.8 * g.lit) / (0.5 * formatNumber(value, decimals).length))}
            fill={palette.ink}
            stroke={palette.sheet}
            strokeWidth={3}
            // The outline lies under the fill, so that the beam does not cut into the figure.
            {...({ paintOrder: 'stroke' } as object)}
            textAnchor="middle"
          >
            {formatNumber(value, decimals)}
          </SvgText>
          {g.showUnit && unit !== '' && (
            <SvgText
              x={g.cx}
              y={g.cy + 0.2 * g.radius + 0.36 * g.numeral + 15}
              fontFamily={SVG_FONT}
              fontSize={13}
              fill={palette.ink2}
              textAnchor="middle"
            >
              {unit}
            </SvgText>
          )}
        </>
      ) : (
        <GaugeNoData x={g.cx} y={g.cy + 0.2 * g.radius} />
      )}
    </Svg>
  );
}
