import { Path } from 'react-native-svg';
import { usePalette } from '../theme/useTheme';

/** The time compared with, as a dashed line behind the subject. */
export function TrendReference({ d }: { readonly d: string }) {
  const palette = usePalette();
  return <Path d={d} fill="none" stroke={palette.ink2} strokeWidth={1.1} strokeDasharray="4 3" />;
}
