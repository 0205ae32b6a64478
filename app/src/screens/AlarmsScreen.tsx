import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import {
  formatMoment,
  formatValue,
  isSetAside,
  LEVEL_WORDS,
  type Alarm,
  type AlarmRule,
  type Metric,
} from '@vivid-beacon/core';
import { usePutRuleBack, useRetireRule } from '../api/changes';
import { useAlarmRules, useAlarms, useMetrics } from '../api/queries';
import { usePerson } from '../api/session';
import { Answer } from '../components/Answer';
import { Button } from '../components/Button';
import { PlusIcon } from '../components/icons';
import { LampWord } from '../components/LampWord';
import { Page } from '../components/Page';
import { Row } from '../components/Row';
import { Section } from '../components/Section';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';
import { useNow } from '../hooks/useNow';
import { usePalette } from '../theme/useTheme';
import { alarmStateWords } from './alarmWords';
import { lampOfAlarm } from './lampOfAlarm';
import { mayAct, mayBuild } from '../api/mayAct';
import { delayWords } from './ruleWords';
import { SetAsideForm } from './SetAsideForm';

/** Alarms that stand, alarms that are over, and the rules that raise them. */
export function AlarmsScreen() {
  const palette = usePalette();
  const router = useRouter();
  const alarms = useAlarms();
  const rules = useAlarmRules();
  const metrics = useMetrics();
  const person = usePerson();
  const build = mayBuild(person);
  const act = mayAct(person);
  return (
    <Page
      title="Alarms"
      tools={
        <View style={styles.tools}>
          <Button
            look="quiet"
            label="Health"
            name="Alarm health"
            onPress={() => router.push('/alarms/health')}
          />
          {build && (
            <Button
              label="New rule"
              icon={<PlusIcon size={20} color={palette.ink} strokeWidth={1.75} />}
              onPress={() => router.push('/alarms/rules/new')}
            />
          )}
        </View>
      }
    >
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
                  metric={metrics.data?.find(({ id }) => id === rule.metricId)}
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
          {`${alarm.plantName}, ${formatMoment(alarm.raisedAt, alarm.zone, now)}. ${alarmStateWords(alarm, now)}`}
        </Words>
      }
      left={<LampWord {...lampOfAlarm(alarm)} />}
      onPress={() => router.push(`/alarms/${alarm.id}`)}
      last={last}
    />
  );
}

function RuleRow({
  rule,
  metric,
  mayRetire,
  act,
  last,
}: {
  readonly rule: AlarmRule;
  readonly metric: Metric | undefined;
  readonly mayRetire: boolean;
  readonly act: boolean;
  readonly last: boolean;
}) {
  const router = useRouter();
  const [sure, setSure] = useState(false);
  const [shelving, setShelving] = useState(false);
  const retire = useRetireRule();
  const putBack = usePutRuleBack();
  const now = useNow(60_000);
  const { aside } = rule;
  const zone = metric?.zone ?? 'UTC';
  const limit = formatValue(rule.limit, metric?.unit ?? '', metric?.decimals ?? 1);
  const state =
    aside === null
      ? ''
      : aside.until === null
        ? `. Out of service, ${aside.by}: ${aside.reason}`
        : `. Shelved until ${formatMoment(aside.until, zone, now)}, ${aside.by}: ${aside.reason}`;
  return (
    <>
      <Row
        title={rule.name}
        second={`${LEVEL_WORDS[rule.level]} ${rule.side} ${limit} for ${delayWords(rule.onDelayMs)}${rule.latching ? ', stands until it is reset' : ''}${metric ? `, ${metric.plantName}` : ''}${state}`}
        last={last}
        right={
          <View style={styles.retire}>
            {(aside?.kind === 'shelved' ? act : aside && mayRetire) && (
              <Button
                look="quiet"
                label="Put back"
                name={`Put ${rule.name} back`}
                disabled={putBack.isPending}
                onPress={() => putBack.mutate(rule.id)}
              />
            )}
            {act && !aside && (
              <Button
                look="quiet"
                label="Shelve"
                name={`Shelve ${rule.name}`}
                onPress={() => setShelving(true)}
              />
            )}
            {mayRetire && (
              <Button
                look="quiet"
                label="Change"
                name={`Change ${rule.name}`}
                onPress={() => router.push({ pathname: '/alarms/rules/new', params: { from: rule.id } })}
              />
            )}
            {mayRetire && (
              <Button
                look="quiet"
                label={sure ? 'Take out now' : 'Take out of force'}
                name={`Take ${rule.name} out of force`}
                disabled={retire.isPending}
                onPress={() => (sure ? retire.mutate(rule.id) : setSure(true))}
              />
            )}
          </View>
        }
      />
      <Tray title="Shelve" open={shelving} onClose={() => setShelving(false)}>
        {shelving && <SetAsideForm ruleId={rule.id} ruleName={rule.name} onDone={() => setShelving(false)} />}
      </Tray>
    </>
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 8 },
  retire: { flexShrink: 0, flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'flex-end', gap: 6 },
});
