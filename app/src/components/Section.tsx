import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { Rule } from './Rule';
import { Words } from './Words';

interface SectionProps {
  readonly title: string;
  readonly aside?: string;
  readonly children: ReactNode;
  /** A strong rule closes a region. */
  readonly closed?: boolean;
}

/** A region of a page under its head. */
export function Section({ title, aside, children, closed = true }: SectionProps) {
  const palette = usePalette();
  return (
    <View role="region" aria-label={title} style={styles.section}>
      <View style={styles.head}>
        <Words as="sectionHead" heading={2}>
          {title}
        </Words>
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
  head: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    alignItems: 'baseline',
    gap: 12,
    paddingBottom: 2,
  },
});
