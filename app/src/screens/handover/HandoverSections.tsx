import { useRouter, type Href } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { Handover } from '@vivid-beacon/core';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { useLayout } from '../../hooks/useLayout';
import { usePalette } from '../../theme/useTheme';
import { handoverParts } from './handoverLines';

/** What is still open when a shift ends, and what happened in it. */
export function HandoverSections({ handover }: { readonly handover: Handover }) {
  const palette = usePalette();
  const router = useRouter();
  const { wide } = useLayout();
  return handoverParts(handover).map(({ title, aside, lines, none }) => (
    <View key={title} style={wide && styles.column}>
      <Section title={title} aside={aside} closed={false}>
        {lines.map(({ key, title: what, second, href }, i) => (
          <Row
            key={key}
            title={what}
            second={second}
            onPress={href === null ? undefined : () => router.push(href as Href)}
            last={i === lines.length - 1}
          />
        ))}
        {lines.length === 0 && (
          <Words as="body" colour={palette.ink2}>
            {none}
          </Words>
        )}
      </Section>
    </View>
  ));
}

const styles = StyleSheet.create({ column: { flexGrow: 1, flexBasis: 340, maxWidth: '100%', minWidth: 0 } });
