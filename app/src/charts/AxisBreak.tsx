import { G, Path, Rect } from 'react-native-svg';
import { usePalette } from '../theme/useTheme';
import { BREAK_HEIGHT } from './brokenAxis';

/** What stands for a stretch of values left out: two waves across the plot, as on a torn sheet. */
export function AxisBreak({ top, width }: { readonly top: number; readonly width: number }) {
  const palette = usePalette();
  const waves = Math.max(2, Math.round(width / 24));
  const step = (width + 10) / waves;
  const wave = `M-6 ${top + BREAK_HEIGHT / 2}${`q${step / 4} -4 ${step / 2} 0t${step / 2} 0`.repeat(waves)}`;
  return (
    <G>
      <Rect x={-6} y={top} width={width + 10} height={BREAK_HEIGHT} fill={palette.sheet} />
      <G y={-3}>
        <Path d={wave} fill="none" stroke={palette.ink2} strokeWidth={1} />
      </G>
      <G y={3}>
        <Path d={wave} fill="none" stroke={palette.ink2} strokeWidth={1} />
      </G>
    </G>
  );
}
