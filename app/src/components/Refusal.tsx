import { View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

/** What the server said when it refused a change; nothing as long as it has not. */
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
