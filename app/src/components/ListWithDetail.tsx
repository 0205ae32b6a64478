import type { ReactNode } from 'react';
import { Slot, usePathname } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { useLayout } from '../hooks/useLayout';
import { usePalette } from '../theme/useTheme';
import { BesidePage } from './Page';
import { Words } from './Words';

interface ListWithDetailProps {
  /** Address of the list alone. */
  readonly base: string;
  /** Addresses of its entries. */
  readonly detail: RegExp;
  readonly list: ReactNode;
  /** Stands where the detail will: "Choose an alarm to see it here." */
  readonly hint: string;
}

/**
 * The pages below a list: on a wide sheet the list stays at the left with the chosen entry beside it, and the address is that
 * of the entry; on the phone each is a page of its own, as every other page below it is.
 */
export function ListWithDetail({ base, detail, list, hint }: ListWithDetailProps) {
  const palette = usePalette();
  const { wide } = useLayout();
  const path = usePathname();
  const chosen = detail.test(path);
  if (!wide || !(chosen || path === base)) return <Slot />;
  return (
    <View style={styles.sides}>
      <View style={styles.list}>
        <BesidePage.Provider value={chosen}>{list}</BesidePage.Provider>
      </View>
      <View style={[styles.detail, { borderLeftColor: palette.ink }]}>
        {chosen ? (
          <Slot />
        ) : (
          <View style={styles.hint}>
            <Words as="body" colour={palette.ink2}>
              {hint}
            </Words>
          </View>
        )}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  sides: { flex: 1, flexDirection: 'row', minHeight: 0 },
  list: { flex: 5, minWidth: 0 },
  detail: { flex: 6, minWidth: 0, borderLeftWidth: 1.5 },
  hint: { flex: 1, alignItems: 'center', justifyContent: 'center', padding: 24 },
});
