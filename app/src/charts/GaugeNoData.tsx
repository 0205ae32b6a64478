import { Circle, G, Path } from 'react-native-svg';
import { usePalette } from '../theme/useTheme';

/** The No data lamp where a gauge's numeral would stand. */
export function GaugeNoData({ x, y }: { readonly x: number; readonly y: number }) {
  const palette = usePalette();
  return (
    <G x={x - 18} y={y - 18} scale={1.5}>
      <Circle
        cx={12}
        cy={12}
        r={7.5}
        fill="none"
        stroke={palette.nodata}
        strokeWidth={2}
        strokeDasharray="3.4 2.5"
      />
      <Path
        d="M8.2 13.8L13.8 8.2M10.2 15.8L15.8 10.2"
        stroke={palette.nodata}
        strokeWidth={1.6}
        strokeLinecap="round"
      />
    </G>
  );
}
