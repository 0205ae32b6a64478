import { memo } from 'react';
import { ClipPath, Defs, G, Path, Rect, Text as SvgText } from 'react-native-svg';
import { shapeColour } from '../theme/palette';
import { SVG_FONT } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import type { Channel } from './trendGeometry';
import { columnLabels, type SceneSeries } from './trendScene';

interface TrendLinesProps {
  readonly id: string;
  readonly series: readonly SceneSeries[];
  /** Key of the series drawn in ink, in front. */
  readonly subject: string;
  /** The target band in px, from the bottom up; the subject changes colour where it leaves Clear. */
  readonly parts: readonly Channel[];
  readonly width: number;
  readonly decimals: number;
}

const FADE = [1, 0.72, 0.46, 0.24];
const OVER = 6;

/** The lines, areas and columns of a trend: the subject in ink, all others quiet. */
export const TrendLines = memo(function TrendLines({
  id,
  series,
  subject,
  parts,
  width,
  decimals,
}: TrendLinesProps) {
  const palette = usePalette();
  const first = series.findIndex(({ key }) => key === subject);
  const others = series.filter((_, i) => i !== first);
  const front = series[first];
  const filled = series.some(({ area }) => area !== '');
  return (
    <>
      <Defs>
        {parts.map((part, i) => (
          <ClipPath key={i} id={`${id}c${i}`}>
            <Rect
              x={-4}
              y={part.top - (i === parts.length - 1 ? OVER : 0)}
              width={width + 8}
              height={
                Math.max(0, part.bottom - part.top) +
                (i === parts.length - 1 ? OVER : 0) +
                (i === 0 ? OVER : 0)
              }
            />
          </ClipPath>
        ))}
      </Defs>
      {filled &&
        series.map(
          ({ key, area }, i) =>
            area !== '' && (
              <Path key={key} d={area} fill={palette.sea} fillOpacity={FADE[i % FADE.length] * 0.5} />
            ),
        )}
      {series.map(
        ({ key, columns }, i) =>
          columns.length > 0 && (
            <Path
              key={key}
              d={columns
                .map(({ x, y, width: wide, height }) => `M${x} ${y}h${wide}v${height}h${-wide}Z`)
                .join('')}
              fill={i === first ? palette.sea : palette.bar}
              fillOpacity={i === first ? 1 : FADE[i % FADE.length]}
            />
          ),
      )}
      {columnLabels(series, decimals).map(({ key, x, y, text }) => (
        <SvgText
          key={key}
          x={x}
          y={y}
          fontFamily={SVG_FONT}
          fontSize={12}
          fill={palette.ink}
          textAnchor="middle"
        >
          {text}
        </SvgText>
      ))}
      {others.map(({ key, path }) => (
        <Path key={key} d={path} fill="none" stroke={palette.bar} strokeWidth={1.5} strokeLinejoin="round" />
      ))}
      {front && front.path !== '' && parts.length === 0 && (
        <Path d={front.path} fill="none" stroke={palette.ink} strokeWidth={1.8} strokeLinejoin="round" />
      )}
      {front && front.path !== '' && (
        <G>
          {parts.map((part, i) => (
            <Path
              key={i}
              d={front.path}
              clipPath={`url(#${id}c${i})`}
              fill="none"
              stroke={part.level === 'clear' ? palette.ink : shapeColour(palette, part.level)}
              strokeWidth={{ clear: 1.8, caution: 2.2, breach: 2.8 }[part.level]}
              strokeLinejoin="round"
            />
          ))}
        </G>
      )}
    </>
  );
});
