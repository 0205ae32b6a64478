import { Circle, Path } from 'react-native-svg';
import { usePalette } from '../theme/useTheme';

/** Light out: a dashed ring with two short diagonals, in a box of 24. */
export function NoDataMark() {
  const { nodata } = usePalette();
  return (
    <>
      <Circle cx={12} cy={12} r={7.5} fill="none" stroke={nodata} strokeWidth={2} strokeDasharray="3.4 2.5" />
      <Path
        d="M8.2 13.8L13.8 8.2M10.2 15.8L15.8 10.2"
        stroke={nodata}
        strokeWidth={1.6}
        strokeLinecap="round"
      />
    </>
  );
}
