import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import {
  bandOfTest,
  conditionWords,
  formatValue,
  isSetAside,
  LEVEL_WORDS,
  needsAcknowledgement,
  longestPeriod,
  type Alarm,
  type AlarmEvent,
  type WindowSpec,
} from '@vivid-beacon/core';
import { useAcknowledge, useAddRemark, usePutRuleBack, useResetAlarm } from '../api/changes';
import { useIndicatorsById } from '../api/indicators';
import { useAlarm, useTrend } from '../api/queries';
import { usePerson } from '../api/session';
import { LazyTrend } from './LazyTrend';
import { QueryResult } from '../components/QueryResult';
import { Button } from '../components/Button';
import { Field } from '../components/Field';
import { CheckIcon, FlagIcon } from '../components/icons';
import { Lamp } from '../components/Lamp';
import { Page } from '../components/Page';
import { RemarkField } from '../components/RemarkField';
import { Row } from '../components/Row';
import { Section } from '../components/Section';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';
import { useNow } from '../hooks/useNow';
import { useWidth } from '../hooks/useWidth';
import { wordInk } from '@vivid-beacon/core/src/drawing/palette';
import { usePalette } from '../theme/useTheme';
import { alarmStateWords, eventWords } from './alarmWords';
import { FlagForm, type FlagSubject } from '../flags/FlagForm';
import { lampOfAlarm } from './lampOfAlarm';
import { mayAct, mayBuild } from '../api/mayAct';
import { SetAsideForm } from './SetAsideForm';
import { siteMoment } from './siteMoment';

/** One alarm: its state, its trend, its history, and what can be done. */
export function AlarmScreen({ alarmId }: { readonly alarmId: string }) {
  const router = useRouter();
  const query = useAlarm(alarmId);
  const person = usePerson();
  const [doing, setDoing] = useState<'acknowledge' | 'flag' | 'aside' | null>(null);
  const reset = useResetAlarm();
  const putBack = usePutRuleBack();
  const failed = reset.error ?? putBack.error;
  const alarm = query.data?.alarm;
  const act = mayAct(person, alarm?.plantId);
  const build = mayBuild(person, alarm?.plantId);
  const palette = usePalette();
  return (
    <Page
      title="Alarm"
      onBack={() => router.navigate('/alarms')}
      backName="Back to alarms"
      dock={
        act &&
        alarm && (
          <>
            {alarm.state === 'latchedAcknowledged' ? (
              <Button
                grow
                variant="primary"
                label="Reset"
                disabled={reset.isPending}
                onPress={() => reset.mutate(alarm.id)}
              />
            ) : (
              <Button
                grow
                variant="primary"
                label="Acknowledge"
                disabled={!needsAcknowledgement(alarm.state)}
                icon={<CheckIcon size={20} color={palette.btnT} strokeWidth={1.75} />}
                onPress={() => setDoing('acknowledge')}
              />
            )}
            {isSetAside(alarm.state) ? (
              <Button
                grow
                label="Reinstate"
                // Only analysts reinstate what was taken out of service; nobody reinstates what the state of
                // the plant suppresses.
                disabled={
                  putBack.isPending ||
                  alarm.state === 'suppressed' ||
                  (alarm.state === 'outOfService' && !build)
                }
                onPress={() => putBack.mutate({ id: alarm.ruleId, metricId: alarm.metricId })}
              />
            ) : (
              alarm.state !== 'normal' && <Button grow label="Shelve" onPress={() => setDoing('aside')} />
            )}
            <Button
              grow
              label="Flag"
              icon={<FlagIcon size={20} color={palette.ink} strokeWidth={1.75} />}
              onPress={() => setDoing('flag')}
            />
          </>
        )
      }
    >
      {failed && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>{`That did not work. ${failed.message}`}</Words>
        </View>
      )}
      <QueryResult query={query} reading="Loading the alarm">
        {(data) => <AlarmSheet {...data} />}
      </QueryResult>
      {alarm && (
        <>
          <Tray title="Acknowledge" open={doing === 'acknowledge'} onClose={() => setDoing(null)}>
            {doing === 'acknowledge' && <Acknowledge alarm={alarm} onDone={() => setDoing(null)} />}
          </Tray>
          <Tray title="Shelve" open={doing === 'aside'} onClose={() => setDoing(null)}>
            {doing === 'aside' && (
              <SetAsideForm
                ruleId={alarm.ruleId}
                metricId={alarm.metricId}
                ruleName={alarm.ruleName}
                onDone={() => setDoing(null)}
              />
            )}
          </Tray>
          <Tray title="Flag" open={doing === 'flag'} onClose={() => setDoing(null)}>
            {doing === 'flag' && <FlagForm subject={flagOf(alarm)} onDone={() => setDoing(null)} />}
          </Tray>
        </>
      )}
    </Page>
  );
}

function AlarmSheet({
  alarm,
  events,
  earlier,
}: {
  readonly alarm: Alarm;
  readonly events: readonly AlarmEvent[];
  readonly earlier: readonly Alarm[];
}) {
  const palette = usePalette();
  const router = useRouter();
  const now = useNow();
  const lamp = lampOfAlarm(alarm);
  const add = useAddRemark();
  const person = usePerson();
  return (
    <>
      <View style={styles.head}>
        <Lamp level={lamp.level} mark={lamp.mark} size={46} />
        <View style={styles.title}>
          <Words as="pageTitle" heading={2}>
            {alarm.ruleName}
          </Words>
          <Words as="rowTitle" colour={palette[wordInk(alarm.returnedAt === null ? alarm.level : 'clear')]}>
            {alarmStateWords(alarm, now)}
          </Words>
          {isSetAside(alarm.state) && alarm.asideReason && (
            <Words as="second" colour={palette.ink2}>{`Reason: ${alarm.asideReason}`}</Words>
          )}
          <Words as="second" colour={palette.ink2}>
            {`${alarm.assetName}, ${alarm.plantName}${alarm.acknowledgedBy ? `, acknowledged by ${alarm.acknowledgedBy}` : ''}`}
          </Words>
        </View>
      </View>
      <View style={styles.figures}>
        <Figure text={formatValue(alarm.latestValue, alarm.unit, alarm.decimals)} name="latest" />
        <Figure text={formatValue(alarm.raisedValue, alarm.unit, alarm.decimals)} name="when raised" />
      </View>
      <Words as="body">{`Raised when it is ${conditionWords(alarm)}; ${alarm.priority} priority.`}</Words>
      {alarm.toDo !== '' && (
        <Section title="What to do">
          <Words as="body">{alarm.toDo}</Words>
        </Section>
      )}
      <AlarmTrend alarm={alarm} />
      <Section title="History" aside={events.length === 1 ? '1 entry' : `${events.length} entries`}>
        {events.map((event, i) => {
          const { title, detail } = eventWords(event, alarm, now);
          return <Row key={event.id} title={title} second={detail} last={i === events.length - 1} />;
        })}
        {mayAct(person, alarm.plantId) && (
          <RemarkField
            label="Add a remark"
            pending={add.isPending}
            error={add.error}
            onAdd={(remark, clear) => add.mutate({ id: alarm.id, remark }, { onSuccess: clear })}
          />
        )}
      </Section>
      <Section title="Earlier times" aside={`${earlier.length} shown`} closed={false}>
        {earlier.map((each, i) => (
          <Row
            key={each.id}
            title={siteMoment(each.raisedAt, each.zone, now)}
            second={alarmStateWords(each, now)}
            onPress={() => router.push(`/alarms/${each.id}`)}
            last={i === earlier.length - 1}
          />
        ))}
        {earlier.length === 0 && <Words as="body">This rule had raised no alarm before.</Words>}
      </Section>
    </>
  );
}

function Figure({ text, name }: { readonly text: string; readonly name: string }) {
  const palette = usePalette();
  return (
    <View style={[styles.figure, { borderLeftColor: palette.line }]}>
      <Words as="figure">{text}</Words>
      <Words as="second" colour={palette.ink2}>
        {name}
      </Words>
    </View>
  );
}

const BEFORE_MS = 2 * 3_600_000;
const AFTER_MS = 3_600_000;
/** Of a rule over periods. */
const PERIODS_BEFORE = 24;
const PERIODS_AFTER = 4;

/** The metric around the alarm, against its limit. */
function AlarmTrend({ alarm }: { readonly alarm: Alarm }) {
  const now = useNow(60_000);
  const [width, onLayout] = useWidth();
  const minute = (t: number): string => new Date(Math.floor(t / 60_000) * 60_000).toISOString();
  const { over } = alarm;
  const { byId } = useIndicatorsById([over?.indicatorId]);
  const indicator = byId.get(over?.indicatorId ?? '');
  const long = over ? longestPeriod(over.period) : null;
  const before = long === null ? BEFORE_MS : PERIODS_BEFORE * long;
  const after = long === null ? AFTER_MS : PERIODS_AFTER * long;
  const window: WindowSpec = {
    kind: 'absolute',
    start: minute(alarm.raisedAt - before),
    end: minute(Math.min((alarm.returnedAt ?? now) + after, now + 600_000)),
  };
  const measure = indicator?.definition.measure ?? {
    metricId: alarm.metricId,
    summary: over?.summary ?? 'last',
    per: null,
  };
  const query = useTrend(
    width > 0
      ? {
          measure,
          window,
          bucket: over?.period ?? null,
          columns: Math.max(10, width - 64),
        }
      : null,
  );
  const band = alarm.test.kind === 'level' ? (indicator?.band ?? null) : bandOfTest(alarm.test);
  return (
    <View onLayout={onLayout}>
      <QueryResult query={query} reading="Loading the trend">
        {(answer) => (
          <LazyTrend
            width={width}
            height={230}
            answer={answer}
            band={band}
            decimals={alarm.decimals}
            name={`${alarm.metricName} around this alarm`}
            spans={[{ start: alarm.raisedAt, end: alarm.returnedAt ?? answer.now, level: 'breach' }]}
          />
        )}
      </QueryResult>
    </View>
  );
}

function Acknowledge({ alarm, onDone }: { readonly alarm: Alarm; readonly onDone: () => void }) {
  const palette = usePalette();
  const acknowledge = useAcknowledge();
  const [remark, setRemark] = useState('');
  return (
    <>
      <Words as="body" colour={palette.ink2}>{`${LEVEL_WORDS[alarm.level]}: ${alarm.ruleName}`}</Words>
      <Field label="Remark (what you saw or did)" value={remark} onChange={setRemark} multiline />
      {acknowledge.isError && (
        <View role="alert">
          <Words
            as="body"
            colour={palette.breachT}
          >{`Could not acknowledge. ${acknowledge.error.message}`}</Words>
        </View>
      )}
      <Button
        variant="primary"
        label="Acknowledge"
        disabled={acknowledge.isPending}
        onPress={() => acknowledge.mutate({ id: alarm.id, remark }, { onSuccess: onDone })}
      />
    </>
  );
}

/** The draft of a flag for an alarm; the server stores the evidence. */
function flagOf(alarm: Alarm): FlagSubject {
  return {
    title: `Check ${alarm.assetName}, ${alarm.metricName.toLowerCase()}`,
    kind: 'breach',
    assetId: alarm.assetId,
    metricId: alarm.metricId,
    alarmId: alarm.id,
    evidence: null,
  };
}

const styles = StyleSheet.create({
  head: { flexDirection: 'row', gap: 12, paddingVertical: 8, alignItems: 'flex-start' },
  title: { flex: 1, minWidth: 0 },
  figures: { flexDirection: 'row', paddingVertical: 8 },
  figure: { flex: 1, paddingLeft: 12, borderLeftWidth: 1, minWidth: 0 },
});
