import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { isSetAside, keyOf, needsOf, type Need, type Watch } from '@vivid-beacon/core';
import { mayAct } from '../../api/mayAct';
import { useAcknowledge } from '../../api/changes';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { FlagIcon } from '../../components/icons';
import { LampWord } from '../../components/LampWord';
import { Refusal } from '../../components/Refusal';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { lampOfAlarm } from '../lampOfAlarm';
import { needWords } from './needWords';

/** What needs a person now, the most urgent first, each with why it is there and the button at the thumb. */
export function WatchNeeds({ watch, plant }: { readonly watch: Watch; readonly plant: string | null }) {
  const palette = usePalette();
  const here = <T extends { plantId: string }>(rows: readonly T[]): T[] =>
    rows.filter(({ plantId }) => plant === null || plantId === plant);
  const needs = here(needsOf(watch));
  const alarms = here(watch.alarms);
  const aside = alarms.filter(({ state }) => isSetAside(state)).length;
  const known = alarms.filter(({ state }) => state === 'acknowledged').length;
  const acknowledge = useAcknowledge();
  return (
    <Section title="Needs a person now" aside={String(needs.length)}>
      {needs.map((need, i) => (
        <NeedRow key={keyOf(need)} need={need} acknowledge={acknowledge} last={i === needs.length - 1} />
      ))}
      {needs.length === 0 && (
        <Words as="body" colour={palette.ink2} style={{ paddingVertical: 8 }}>
          All clear. Nothing needs a person now.
        </Words>
      )}
      <Refusal of={acknowledge} />
      {aside > 0 && (
        <Words as="second" colour={palette.ink2} style={{ paddingBottom: 8 }}>
          {`${aside} shelved, suppressed or out of service`}
        </Words>
      )}
      {known > 0 && (
        <Words as="second" colour={palette.ink2} style={{ paddingBottom: 8 }}>
          {`${known} more acknowledged and still standing`}
        </Words>
      )}
    </Section>
  );
}

interface NeedRowProps {
  readonly need: Need;
  readonly acknowledge: ReturnType<typeof useAcknowledge>;
  readonly last: boolean;
}

function NeedRow({ need, acknowledge, last }: NeedRowProps) {
  const router = useRouter();
  const act = mayAct(usePerson());
  const { title, second, href } = needWords(need);
  const asks = need.kind === 'alarm' && need.alarm.state !== 'latchedAcknowledged' && act;
  return (
    <Row
      title={title}
      second={second}
      left={<NeedLamp need={need} />}
      onPress={() => router.push(href)}
      last={last}
      right={
        asks ? (
          <Button
            label="Acknowledge"
            name={`Acknowledge ${title}`}
            disabled={acknowledge.isPending && acknowledge.variables?.id === need.alarm.id}
            onPress={() => acknowledge.mutate({ id: need.alarm.id, remark: '' })}
          />
        ) : undefined
      }
    />
  );
}

function NeedLamp({ need }: { readonly need: Need }) {
  const palette = usePalette();
  if (need.kind === 'alarm') return <LampWord {...lampOfAlarm(need.alarm)} />;
  if (need.kind === 'feed') return <LampWord level="nodata" />;
  return (
    <View style={styles.flag}>
      <FlagIcon size={22} color={palette.ink} strokeWidth={1.75} />
    </View>
  );
}

const styles = StyleSheet.create({ flag: { width: 52, alignItems: 'center' } });
