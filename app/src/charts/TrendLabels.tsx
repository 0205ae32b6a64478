import { G, Path, Text as SvgText } from 'react-native-svg';
import { SVG_FONT, SVG_FONT_STRONG } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { labelPlaces, type Scene } from './trendScene';

interface TrendLabelsProps {
  readonly scene: Scene;
  readonly subject: string;
  readonly width: number;
  readonly height: number;
}

const LINE = 15;

/** The name of each line at its end, moved apart where they would lie on one another. */
export function TrendLabels({ scene, subject, width, height }: TrendLabelsProps) {
  const palette = usePalette();
  const ends = scene.series.flatMap((each) => {
    const last = each.top.findLastIndex((value) => value !== null);
    if (last < 0) return [];
    return [{ each, x: scene.x(each.t[last]), y: scene.axes[each.axis].at(each.top[last]!) }];
  });
  const places = labelPlaces(
    ends.map(({ y }) => y),
    LINE,
    6,
    height,
  );
  return (
    <>
      {ends.map(({ each, x, y }, i) => (
        <G key={each.key}>
          <Path
            d={`M${x + 2} ${y}L${width + 4} ${places[i]}`}
            stroke={palette.line2}
            strokeWidth={0.8}
            fill="none"
          />
          <SvgText
            x={width + 7}
            y={places[i] + 4}
            fontFamily={each.key === subject ? SVG_FONT_STRONG : SVG_FONT}
            fontSize={13}
            fill={each.key === subject ? palette.ink : palette.ink2}
          >
            {each.name}
          </SvgText>
        </G>
      ))}
    </>
  );
}

/** Width that names need at the right of the plot, in px. */
export function labelRoom(names: readonly string[]): number {
  const longest = Math.max(0, ...names.map((name) => name.length));
  return Math.min(150, longest * 6.4 + 12);
}
