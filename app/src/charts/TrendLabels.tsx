import { memo } from 'react';
import { G, Path, Text as SvgText } from 'react-native-svg';
import { levelOf, type Level, type TargetBand } from '@vivid-beacon/core';
import { wordColour } from '../theme/palette';
import { SVG_FONT, SVG_FONT_STRONG } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { starPath } from './starPath';
import { labelPlaces, type Scene } from './trendScene';

interface TrendLabelsProps {
  readonly id: string;
  readonly scene: Scene;
  readonly subject: string;
  readonly width: number;
  readonly height: number;
  /** What judges the newest values of the lines of the left and of the right axis; null = nothing. */
  readonly bands: readonly (TargetBand | null)[];
}

const LINE = 15;

/** The name of each line at its end, moved apart where they would lie on one another. */
export const TrendLabels = memo(function TrendLabels({
  id,
  scene,
  subject,
  width,
  height,
  bands,
}: TrendLabelsProps) {
  const palette = usePalette();
  const ends = scene.series.flatMap((each) => {
    const last = each.top.findLastIndex((value) => value !== null);
    if (last < 0) return [];
    const band = bands[each.axis];
    const level: Level = band ? levelOf(band, each.v[last]) : 'clear';
    return [{ each, level, x: scene.x(each.t[last]), y: scene.axes[each.axis].at(each.top[last]!) }];
  });
  const places = labelPlaces(
    ends.map(({ y }) => y),
    LINE,
    6,
    height,
  );
  return (
    <G id={`${id}names`}>
      {ends.map(({ each, level, x, y }, i) => (
        <G key={each.key}>
          <Path
            d={`M${x + 2} ${y}L${width + 4} ${places[i]}`}
            stroke={palette.line2}
            strokeWidth={0.8}
            fill="none"
          />
          {level === 'breach' && <Path d={starPath(width + 13, places[i], 6.5, 4)} fill={palette.breach} />}
          {level === 'caution' && (
            <>
              <Path
                d={`M${width + 13} ${places[i] - 5}a5 5 0 0 1 0 10a5 5 0 0 1 0 -10Z`}
                fill={palette.cautionW}
                stroke={palette.caution}
                strokeWidth={1.4}
              />
              <Path d={`M${width + 13} ${places[i] - 5}a5 5 0 0 0 0 10Z`} fill={palette.caution} />
            </>
          )}
          <SvgText
            x={width + (level === 'clear' ? 7 : 22)}
            y={places[i] + 4}
            fontFamily={each.key === subject ? SVG_FONT_STRONG : SVG_FONT}
            fontSize={13}
            fill={
              level === 'clear'
                ? each.key === subject
                  ? palette.ink
                  : palette.ink2
                : wordColour(palette, level)
            }
          >
            {each.name}
          </SvgText>
        </G>
      ))}
    </G>
  );
});

/** Width that names need at the right of the plot, in px. */
export function labelRoom(names: readonly string[]): number {
  const longest = Math.max(0, ...names.map((name) => name.length));
  return Math.min(165, longest * 6.4 + 27);
}
