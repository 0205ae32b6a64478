import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { Rule } from './Rule';
import type { Term } from './glossary';
import { TermButton } from './TermButton';
import { Words } from './Words';

interface SectionProps {
  readonly title: string;
  readonly aside?: string;
  /** The word of the product that it is about. */
  readonly term?: Term;
  readonly children: ReactNode;
  /** A strong rule closes a region. */
  readonly closed?: boolean;
}

/** A region of a page under its head. */
export function Section({ title, aside, term, children, closed = true }: SectionProps) {
  const palette = usePalette();
  return (
    <View role="region" aria-label={title} style={styles.section}>
      <View style={styles.head}>
        <View style={styles.title}>
          <Words as="sectionHead" heading={2}>
            {title}
          </Words>
          {term && <TermButton term={term} />}
        </View>
        {aside !== undefined && (
          <Words as="second" colour={palette.ink2}>
            {aside}
          </Words>
        )}
      </View>
      {children}
      {closed && <Rule strong />}
    </View>
  );
}

const styles = StyleSheet.create({
  section: { gap: 4, paddingTop: 14 },
  title: { flexDirection: 'row', alignItems: 'center', gap: 2 },
  head: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    alignItems: 'baseline',
    gap: 12,
    paddingBottom: 2,
  },
});
