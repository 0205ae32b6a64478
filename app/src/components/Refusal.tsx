import { View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

/** The error of a mutation; nothing if it did not fail. */
export function Refusal({ of }: { readonly of: { readonly error: Error | null } }) {
  const palette = usePalette();
  if (!of.error) return null;
  return (
    <View role="alert">
      <Words as="body" colour={palette.breachT}>
        {of.error.message}
      </Words>
    </View>
  );
}
