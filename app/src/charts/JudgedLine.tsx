import { G, Path } from 'react-native-svg';
import { shapeColour } from '../theme/palette';
import { usePalette } from '../theme/useTheme';
import type { Channel } from './trendGeometry';
import type { SceneSeries } from './trendScene';

interface JudgedLineProps {
  readonly line: SceneSeries;
  readonly parts: readonly Channel[];
  /** Id of the clip of a part. */
  readonly clip: (i: number) => string;
  /** How it is drawn where it is Clear, and without a band. */
  readonly clear: string;
  readonly wide: number;
}

/** A line that changes colour and weight where it leaves Clear. */
export function JudgedLine({ line, parts, clip, clear, wide }: JudgedLineProps) {
  const palette = usePalette();
  if (parts.length === 0)
    return <Path d={line.path} fill="none" stroke={clear} strokeWidth={wide} strokeLinejoin="round" />;
  return (
    <G>
      {parts.map((part, i) => (
        <Path
          key={i}
          d={line.path}
          clipPath={`url(#${clip(i)})`}
          fill="none"
          stroke={part.level === 'clear' ? clear : shapeColour(palette, part.level)}
          strokeWidth={{ clear: wide, caution: 2.2, breach: 2.8 }[part.level]}
          strokeLinejoin="round"
        />
      ))}
    </G>
  );
}
