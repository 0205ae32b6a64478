import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { isSetAside, type Alarm } from '@vivid-beacon/core';
import { useMetricsById } from '../api/catalogue';
import { useAlarmRules, useAlarms } from '../api/queries';
import { usePerson } from '../api/session';
import { Answer } from '../components/Answer';
import { Button } from '../components/Button';
import { PlusIcon } from '../components/icons';
import { LampWord } from '../components/LampWord';
import { Page } from '../components/Page';
import { Row } from '../components/Row';
import { Section } from '../components/Section';
import { Words } from '../components/Words';
import { useNow } from '../hooks/useNow';
import { usePalette } from '../theme/useTheme';
import { alarmStateWords, placeOfAlarm } from './alarmWords';
import { lampOfAlarm } from './lampOfAlarm';
import { mayAct, mayBuild } from '../api/mayAct';
import { RuleRow } from './rule/RuleRow';
import { siteMoment } from './siteMoment';

/** Alarms that stand, alarms that are over, and the rules that raise them. */
export function AlarmsScreen() {
  const palette = usePalette();
  const router = useRouter();
  const alarms = useAlarms();
  const rules = useAlarmRules();
  const { byId: metrics } = useMetricsById((rules.data ?? []).map(({ metricId }) => metricId));
  const person = usePerson();
  const build = mayBuild(person);
  const act = mayAct(person);
  return (
    <Page
      title="Alarms"
      tools={
        build && (
          <Button
            label="New rule"
            icon={<PlusIcon size={20} color={palette.ink} strokeWidth={1.75} />}
            onPress={() => router.push('/alarms/rules/new')}
          />
        )
      }
    >
      <View style={styles.tools}>
        <Button look="quiet" label="Notices" onPress={() => router.push('/alarms/notices')} />
        <Button
          look="quiet"
          label="Health"
          name="Alarm health"
          onPress={() => router.push('/alarms/health')}
        />
        <Button
          look="quiet"
          label="Handover"
          name="Shift handover"
          onPress={() => router.push('/handover')}
        />
      </View>
      <Answer query={alarms} reading="Reading alarms">
        {({ standing, past }) => (
          <>
            <Section title="Standing" aside={standingWords(standing)}>
              {standing.map((alarm, i) => (
                <AlarmRow key={alarm.id} alarm={alarm} last={i === standing.length - 1} />
              ))}
              {standing.length === 0 && <Words as="body">All clear. No alarm stands.</Words>}
            </Section>
            <Section title="Over" aside={past.length > 0 ? `newest ${past.length}` : ''}>
              {past.map((alarm, i) => (
                <AlarmRow key={alarm.id} alarm={alarm} last={i === past.length - 1} />
              ))}
              {past.length === 0 && <Words as="body">No alarm has come and gone yet.</Words>}
            </Section>
          </>
        )}
      </Answer>
      <Section title="Rules in force" aside={rules.data ? String(rules.data.length) : ''} closed={false}>
        <Answer query={rules} reading="Reading rules">
          {(rows) => (
            <>
              {rows.map((rule, i) => (
                <RuleRow
                  key={rule.id}
                  rule={rule}
                  metric={metrics.get(rule.metricId)}
                  mayRetire={build}
                  act={act}
                  last={i === rows.length - 1}
                />
              ))}
            </>
          )}
        </Answer>
      </Section>
    </Page>
  );
}

/** How many stand, and how many of them are set aside. */
function standingWords(standing: readonly Alarm[]): string {
  const aside = standing.filter(({ state }) => isSetAside(state)).length;
  return aside === 0 ? String(standing.length) : `${standing.length - aside}, and ${aside} set aside`;
}

function AlarmRow({ alarm, last }: { readonly alarm: Alarm; readonly last: boolean }) {
  const palette = usePalette();
  const router = useRouter();
  const now = useNow();
  return (
    <Row
      title={alarm.ruleName}
      second={
        <Words as="second" colour={palette.ink2}>
          {`${placeOfAlarm(alarm)}, ${siteMoment(alarm.raisedAt, alarm.zone, now)}. ${alarmStateWords(alarm, now)}`}
        </Words>
      }
      left={<LampWord {...lampOfAlarm(alarm)} />}
      onPress={() => router.push(`/alarms/${alarm.id}`)}
      last={last}
    />
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 8 },
});
