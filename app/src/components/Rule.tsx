import { View } from 'react-native';
import { usePalette } from '../theme/useTheme';

/** A ruled line: strong at the edge of a region, thin between items. */
export function Rule({ strong = false }: { readonly strong?: boolean }) {
  const palette = usePalette();
  return (
    <View
      aria-hidden
      style={{
        height: strong ? 1.5 : 1,
        backgroundColor: strong ? palette.ink : palette.line,
        alignSelf: 'stretch',
      }}
    />
  );
}
