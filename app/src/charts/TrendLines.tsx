import { memo } from 'react';
import { ClipPath, Defs, Path, Rect } from 'react-native-svg';
import { usePalette } from '../theme/useTheme';
import { JudgedLine } from './JudgedLine';
import { PlotNumber } from './PlotNumber';
import type { Channel } from './trendGeometry';
import { columnLabels, type SceneSeries } from './trendScene';

interface TrendLinesProps {
  readonly id: string;
  readonly series: readonly SceneSeries[];
  /** Key of the series drawn in ink, in front. */
  readonly subject: string;
  /**
   * The target bands of the left and of the right axis in px, from the bottom up. The subject, and the first line of
   * the other axis, change colour where they leave Clear.
   */
  readonly parts: readonly (readonly Channel[])[];
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
  const front = series[first];
  // Judged beside the subject: the first line in the other unit, where that has a band.
  const aside = series.find(({ axis }) => front && axis !== front.axis && parts[axis].length > 0);
  const quiet = series.filter((each) => each !== front && each !== aside);
  const filled = series.some(({ area }) => area !== '');
  return (
    <>
      <Defs>
        {parts.flatMap((own, axis) =>
          own.map((part, i) => (
            <ClipPath key={`${axis} ${i}`} id={clipOf(id, axis, i)}>
              <Rect
                x={-4}
                y={part.top - (i === own.length - 1 ? OVER : 0)}
                width={width + 8}
                height={
                  Math.max(0, part.bottom - part.top) +
                  (i === own.length - 1 ? OVER : 0) +
                  (i === 0 ? OVER : 0)
                }
              />
            </ClipPath>
          )),
        )}
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
      {columnLabels(series, decimals).map(({ key, ...label }) => (
        <PlotNumber key={key} {...label} />
      ))}
      {quiet.map(({ key, path }) => (
        <Path key={key} d={path} fill="none" stroke={palette.bar} strokeWidth={1.5} strokeLinejoin="round" />
      ))}
      {[aside, front].map(
        (line) =>
          line &&
          line.path !== '' && (
            <JudgedLine
              key={line.key}
              line={line}
              parts={parts[line.axis]}
              clip={(i) => clipOf(id, line.axis, i)}
              clear={line === front ? palette.ink : palette.bar}
              wide={line === front ? 1.8 : 1.5}
            />
          ),
      )}
    </>
  );
});

const clipOf = (id: string, axis: number, i: number): string => `${id}c${axis}-${i}`;
