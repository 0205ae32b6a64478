import { useRouter } from 'expo-router';
import { formatLength, formatValue, isSetAside, needsAcknowledgement, type Alarm } from '@vivid-beacon/core';
import { useAcknowledge } from '../../api/changes';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { LampWord } from '../../components/LampWord';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { mayAct } from '../../api/mayAct';
import { lampOfAlarm } from '../lampOfAlarm';

/** Alarms nobody has acknowledged, with the button at the thumb. */
export function WatchAlarms({ alarms, now }: { readonly alarms: readonly Alarm[]; readonly now: number }) {
  const palette = usePalette();
  const router = useRouter();
  const person = usePerson();
  const acknowledge = useAcknowledge();
  const open = alarms.filter(({ state }) => needsAcknowledgement(state));
  const aside = alarms.filter(({ state }) => isSetAside(state)).length;
  const known = alarms.length - open.length - aside;
  return (
    <Section title="Alarms to acknowledge" aside={String(open.length)}>
      {open.map((alarm, i) => {
        const lasted = formatLength((alarm.returnedAt ?? now) - alarm.raisedAt);
        const value = formatValue(
          alarm.returnedAt === null ? alarm.latestValue : alarm.raisedValue,
          alarm.unit,
          alarm.decimals,
        );
        return (
          <Row
            key={alarm.id}
            title={alarm.ruleName}
            second={`${alarm.plantName}, ${value}, ${lasted}${alarm.returnedAt === null ? '' : ', clear again'}`}
            left={<LampWord {...lampOfAlarm(alarm)} />}
            onPress={() => router.push(`/alarms/${alarm.id}`)}
            last={i === open.length - 1}
            right={
              mayAct(person) ? (
                <Button
                  label="Acknowledge"
                  name={`Acknowledge ${alarm.ruleName}`}
                  disabled={acknowledge.isPending && acknowledge.variables?.id === alarm.id}
                  onPress={() => acknowledge.mutate({ id: alarm.id, remark: '' })}
                />
              ) : undefined
            }
          />
        );
      })}
      {open.length === 0 && (
        <Words as="body" colour={palette.ink2} style={{ paddingVertical: 8 }}>
          All clear. Nothing needs a person now.
        </Words>
      )}
      {acknowledge.isError && (
        <Words as="body" colour={palette.breachT}>
          {`Could not acknowledge. ${acknowledge.error.message}`}
        </Words>
      )}
      {aside > 0 && (
        <Words as="second" colour={palette.ink2} style={{ paddingBottom: 8 }}>
          {`${aside} shelved or out of service`}
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
