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
}

/**
 * The pages below a list: on a wide sheet the list stays at the left with the chosen entry beside it, and the address is that
 * of the entry; on the phone each is a page of its own, as every other page below it is.
 */
export function ListWithDetail({ base, detail, list }: ListWithDetailProps) {
  const palette = usePalette();
  const { wide } = useLayout();
  const path = usePathname();
  const chosen = detail.test(path);
  const beside = wide && (chosen || path === base);
  // The page of the address stays where it is in the tree: moved, it would lose its address.
  return (
    <View style={styles.sides}>
      {beside && (
        <View key="list" style={styles.list}>
          <BesidePage.Provider value={chosen}>{list}</BesidePage.Provider>
        </View>
      )}
      <View key="page" style={[styles.page, beside && [styles.detail, { borderLeftColor: palette.ink }]]}>
        <Slot />
      </View>
    </View>
  );
}

/** The page at the address of the list: the list itself, or on a wide sheet, where that stands beside it, what to do. */
export function ListPage({ list, hint }: { readonly list: ReactNode; readonly hint: string }) {
  const palette = usePalette();
  const { wide } = useLayout();
  if (!wide) return list;
  return (
    <View style={styles.hint}>
      <Words as="body" colour={palette.ink2}>
        {hint}
      </Words>
    </View>
  );
}

const styles = StyleSheet.create({
  sides: { flex: 1, flexDirection: 'row', minHeight: 0 },
  list: { flex: 5, minWidth: 0 },
  page: { flex: 1, minWidth: 0 },
  detail: { flex: 6, borderLeftWidth: 1.5 },
  hint: { flex: 1, alignItems: 'center', justifyContent: 'center', padding: 24 },
});
