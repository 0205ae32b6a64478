import { usePathname, useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { Flag } from '@vivid-beacon/core';
import { usePerson } from '../../api/session';
import { FlagIcon } from '../../components/icons';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { dueWords } from '../dueWords';
import { flagRowWords } from './flagWords';

interface FlagRowProps {
  readonly flag: Flag;
  readonly now: number;
  readonly last: boolean;
}

/** A flag in a list; tapped, it opens. */
export function FlagRow({ flag, now, last }: FlagRowProps) {
  const palette = usePalette();
  const router = useRouter();
  const path = usePathname();
  const me = usePerson()?.id;
  const overdue = flag.closedAt === null ? dueWords(flag.dueAt, now, flag.zone).overdue : null;
  return (
    <Row
      title={flag.title}
      second={flagRowWords(flag, me, now)}
      left={
        <View style={styles.icon}>
          <FlagIcon size={22} color={palette.ink} strokeWidth={1.75} />
        </View>
      }
      onPress={() => router.push(`/flags/${flag.id}`)}
      chosen={path === `/flags/${flag.id}`}
      last={last}
      right={
        overdue ? (
          <Words as="bodyStrong" colour={palette.cautionT}>
            {overdue}
          </Words>
        ) : undefined
      }
    />
  );
}

const styles = StyleSheet.create({ icon: { width: 56, alignItems: 'center' } });
