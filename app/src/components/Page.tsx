import { createContext, useContext, useRef, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useLayout } from '../hooks/useLayout';
import { BackIcon } from './icons';
import { IconButton } from './IconButton';
import type { Term } from './glossary';
import { TermButton } from './TermButton';
import { Words } from './Words';
import { usePalette } from '../theme/useTheme';

interface PageProps {
  readonly title: string;
  readonly under?: string;
  /** The word of the product that the page is about. */
  readonly term?: Term;
  readonly onBack?: () => void;
  readonly backName?: string;
  /** Buttons at the right of the head. */
  readonly tools?: ReactNode;
  /** Stands at the bottom, over the destinations: the one thing to do here. */
  readonly dock?: ReactNode;
  /** Between the head and the scrolled part. */
  readonly top?: ReactNode;
  /** Under the scrolled part, inside the sheet. */
  readonly foot?: ReactNode;
  readonly children: ReactNode;
  /** Told when the scrolled part moves: true = downwards, away from its start. */
  readonly onScroll?: (down: boolean) => void;
  /** Text pages stay readable; boards use the whole sheet. */
  readonly full?: boolean;
}

/** Whether the page stands beside the one that the address names, which is the main one. */
export const BesidePage = createContext(false);

/** Smaller moves than this are a trembling hand, px. */
const SCROLL_STEP = 24;

/** A page of the sheet: head, scrolled content, and a dock if there is one. */
export function Page({
  title,
  under,
  term,
  onBack,
  backName = 'Back',
  tools,
  dock,
  top,
  foot,
  children,
  onScroll,
  full = false,
}: PageProps) {
  const beside = useContext(BesidePage);
  const scrolledTo = useRef(0);
  const palette = usePalette();
  const { wide, low } = useLayout();
  const side = { paddingHorizontal: wide ? 24 : 20 };
  return (
    <View style={styles.page} {...(beside ? { role: 'region', 'aria-label': title } : { role: 'main' })}>
      <View style={[styles.head, side, onBack && styles.headBack, low && styles.headLow]}>
        {onBack && <IconButton icon={BackIcon} name={backName} onPress={onBack} />}
        <View style={[styles.titles, wide && styles.titlesWide]}>
          <Words as="pageTitle" heading={beside ? 2 : 1} lines={low ? 1 : undefined}>
            {title}
          </Words>
          {Boolean(under) && (
            <Words as="body" colour={palette.ink2}>
              {under}
            </Words>
          )}
        </View>
        <View style={styles.tools}>
          {term && <TermButton term={term} />}
          {tools}
        </View>
      </View>
      {top}
      <ScrollView
        scrollEventThrottle={50}
        onScroll={({ nativeEvent: { contentOffset } }) => {
          const step = contentOffset.y - scrolledTo.current;
          if (Math.abs(step) < SCROLL_STEP) return;
          scrolledTo.current = contentOffset.y;
          onScroll?.(step > 0 && contentOffset.y > SCROLL_STEP);
        }}
        contentContainerStyle={[styles.content, side, wide && !full && styles.readable]}
        keyboardShouldPersistTaps="handled"
      >
        {children}
      </ScrollView>
      {foot}
      {dock && (
        <View style={[styles.dock, side, { backgroundColor: palette.ground, borderTopColor: palette.ink }]}>
          {dock}
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  page: { flex: 1, minHeight: 0 },
  head: { flexDirection: 'row', alignItems: 'center', paddingTop: 12, paddingBottom: 6, gap: 4 },
  headBack: { paddingLeft: 8 },
  headLow: { paddingTop: 2, paddingBottom: 2 },
  titles: { flex: 1, minWidth: 0 },
  titlesWide: { flexDirection: 'row', alignItems: 'baseline', gap: 18, flexWrap: 'wrap' },
  tools: { flexDirection: 'row', alignItems: 'center' },
  content: { paddingBottom: 28 },
  readable: { maxWidth: 860 },
  dock: { borderTopWidth: 1.5, paddingVertical: 12, flexDirection: 'row', gap: 10 },
});
