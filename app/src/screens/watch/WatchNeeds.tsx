import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import {
  formatNumber,
  keyOf,
  needsOf,
  openFlags,
  standingCounts,
  type Need,
  type Watch,
} from '@vivid-beacon/core';
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
export function WatchNeeds({
  watch,
  plant,
  watched,
}: {
  readonly watch: Watch;
  readonly plant: string | null;
  /** Whether any alarm rule is in force. */
  readonly watched: boolean;
}) {
  const palette = usePalette();
  const router = useRouter();
  const here = <T extends { plantId: string }>(rows: readonly T[]): T[] =>
    rows.filter(({ plantId }) => plant === null || plantId === plant);
  const needs = here(needsOf(watch));
  const { setAside: aside, acknowledged: known, waiting } = standingCounts(watch.alarmCounts, plant);
  const late = openFlags(watch.flagCounts, plant).late;
  // Only the most urgent are here; the lists have all of them.
  const more = {
    alarms: waiting - needs.filter(({ kind }) => kind === 'alarm').length,
    flags: late - needs.filter(({ kind }) => kind === 'flag').length,
  };
  const acknowledge = useAcknowledge();
  return (
    <Section title="Needs a person now" aside={formatNumber(needs.length + more.alarms + more.flags, 0)}>
      {needs.map((need, i) => (
        <NeedRow key={keyOf(need)} need={need} acknowledge={acknowledge} last={i === needs.length - 1} />
      ))}
      {needs.length === 0 && (
        <Words as="body" colour={palette.ink2} style={{ paddingVertical: 8 }}>
          {watched
            ? 'All clear. Nothing needs a person now.'
            : 'Nothing needs a person, and no alarm rule watches anything yet.'}
        </Words>
      )}
      <Refusal of={acknowledge} />
      {more.alarms > 0 && (
        <Button
          variant="quiet"
          label={`${formatNumber(more.alarms, 0)} more alarms waiting`}
          onPress={() => router.push('/alarms')}
        />
      )}
      {more.flags > 0 && (
        <Button
          variant="quiet"
          label={`${formatNumber(more.flags, 0)} more overdue flags`}
          onPress={() => router.push('/flags')}
        />
      )}
      {aside > 0 && (
        <Words as="second" colour={palette.ink2} style={{ paddingBottom: 8 }}>
          {`${formatNumber(aside, 0)} shelved, suppressed or out of service`}
        </Words>
      )}
      {known > 0 && (
        <Words as="second" colour={palette.ink2} style={{ paddingBottom: 8 }}>
          {`${formatNumber(known, 0)} more acknowledged and still active`}
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
  const act = mayAct(usePerson(), need.plantId);
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
