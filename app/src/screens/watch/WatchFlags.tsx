import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { Flag } from '@vivid-beacon/core';
import { usePerson } from '../../api/session';
import { FlagIcon } from '../../components/icons';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { dueWords } from '../dueWords';

/** Open flags, one's own first, then by when they are due. */
export function WatchFlags({ flags, now }: { readonly flags: readonly Flag[]; readonly now: number }) {
  const palette = usePalette();
  const router = useRouter();
  const me = usePerson()?.id;
  const sorted = [...flags].sort(
    (a, b) => Number(b.to.id === me) - Number(a.to.id === me) || a.dueAt - b.dueAt,
  );
  return (
    <Section title="Flags due" aside={String(flags.length)}>
      {sorted.map((flag, i) => {
        const due = dueWords(flag.dueAt, now, flag.zone);
        return (
          <Row
            key={flag.id}
            title={flag.title}
            second={`${flag.to.id === me ? 'You' : flag.to.name} · ${due.words}`}
            left={
              <View style={styles.icon}>
                <FlagIcon size={22} color={palette.ink} strokeWidth={1.75} />
              </View>
            }
            onPress={() => router.push(`/flags/${flag.id}`)}
            last={i === flags.length - 1}
            right={
              due.overdue ? (
                <Words as="bodyStrong" colour={palette.cautionT}>
                  {due.overdue}
                </Words>
              ) : undefined
            }
          />
        );
      })}
      {flags.length === 0 && (
        <Words as="body" colour={palette.ink2} style={{ paddingVertical: 8 }}>
          No open flags.
        </Words>
      )}
    </Section>
  );
}

const styles = StyleSheet.create({ icon: { width: 56, alignItems: 'center' } });
