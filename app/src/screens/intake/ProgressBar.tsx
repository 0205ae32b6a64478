import { View } from 'react-native';
import { usePalette } from '../../theme/useTheme';

/** How much is done. */
export function ProgressBar({ share, name }: { readonly share: number; readonly name: string }) {
  const palette = usePalette();
  const percent = Math.round(share * 100);
  return (
    <View
      role="progressbar"
      aria-label={name}
      aria-valuenow={percent}
      aria-valuemin={0}
      aria-valuemax={100}
      style={{ height: 9, alignSelf: 'stretch', borderWidth: 1, borderColor: palette.ink, padding: 1.5 }}
    >
      <View style={{ width: `${percent}%`, height: '100%', backgroundColor: palette.ink }} />
    </View>
  );
}
