import { useState } from 'react';
import { usePathname, useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { IndicatorLoss } from '@vivid-beacon/core';
import { mayAct } from '../../api/mayAct';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { Row } from '../../components/Row';
import { Tray } from '../../components/Tray';
import { FlagForm } from '../../flags/FlagForm';
import { usePalette } from '../../theme/useTheme';
import { flagOfLoss, lossWords } from './lossWords';

interface LossRowProps {
  readonly row: IndicatorLoss;
  /** ms that fill the whole width of a bar. */
  readonly longest: number;
}

/** One indicator by the time it lay outside its band; tapped, it opens, and a flag hands it to a person. */
export function LossRow({ row, longest }: LossRowProps) {
  const palette = usePalette();
  const router = useRouter();
  const path = usePathname();
  const act = mayAct(usePerson(), row.plantId);
  const [flagging, setFlagging] = useState(false);
  const done = (): void => setFlagging(false);
  return (
    <View role="listitem">
      <View style={styles.bar} aria-hidden>
        <View style={{ width: `${(100 * row.breachMs) / longest}%`, backgroundColor: palette.bar }} />
        <View
          style={{ width: `${(100 * row.cautionMs) / longest}%`, borderWidth: 1, borderColor: palette.bar }}
        />
      </View>
      <Row
        title={row.name}
        second={`${row.place}. ${lossWords(row)}`}
        onPress={() => router.push(`/losses/${row.id}`)}
        chosen={path === `/losses/${row.id}`}
        right={
          act && row.breachMs + row.cautionMs > 0 ? (
            <Button label="Flag" name={`Flag ${row.name}, ${row.place}`} onPress={() => setFlagging(true)} />
          ) : undefined
        }
      />
      <Tray title="Flag" open={flagging} onClose={done}>
        {flagging && <FlagForm subject={flagOfLoss(row)} onDone={done} />}
      </Tray>
    </View>
  );
}

const styles = StyleSheet.create({ bar: { flexDirection: 'row', height: 8, marginTop: 9 } });
