import { usePathname, useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatNumber, type Alarm, type AlarmRule, type PageOf } from '@vivid-beacon/core';
import { useMetricsById } from '../api/catalogue';
import { itemsOf } from '../api/pages';
import { useAlarmPages, useRulePages } from '../api/queries';
import { usePerson } from '../api/session';
import { Button } from '../components/Button';
import { PlusIcon } from '../components/icons';
import { LampWord } from '../components/LampWord';
import { LongList } from '../components/LongList';
import { Message } from '../components/Message';
import { Page } from '../components/Page';
import { Row } from '../components/Row';
import { SearchField, useSearch } from '../components/SearchField';
import { Section } from '../components/Section';
import { Words } from '../components/Words';
import { useNow } from '../hooks/useNow';
import { usePalette } from '../theme/useTheme';
import { alarmStateWords, placeOfAlarm } from './alarmWords';
import { lampOfAlarm } from './lampOfAlarm';
import { mayAct, mayBuild } from '../api/mayAct';
import { DefinitionsOut } from './definitions/DefinitionsOut';
import { RuleRow } from './rule/RuleRow';
import { siteMoment } from './siteMoment';

/** Active alarms, past alarms, and the rules that raise them. */
export function AlarmsScreen() {
  const palette = usePalette();
  const router = useRouter();
  const search = useSearch();
  const standing = useAlarmPages('standing', search.settled);
  const over = useAlarmPages('over', search.settled);
  const rules = useRulePages(search.settled);
  const { byId: metrics } = useMetricsById(itemsOf(rules.data).map(({ metricId }) => metricId));
  const person = usePerson();
  const build = mayBuild(person);
  const unwatched = search.settled === '' && rules.data?.pages[0].total === 0;
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
        <Button variant="quiet" label="Notices" onPress={() => router.push('/alarms/notices')} />
        <Button
          variant="quiet"
          label="Health"
          name="Alarm health"
          onPress={() => router.push('/alarms/health')}
        />
        <Button
          variant="quiet"
          label="Handover"
          name="Shift handover"
          onPress={() => router.push('/handover')}
        />
      </View>
      <SearchField
        label="Search alarms and rules"
        placeholder="Search by rule, metric, asset or plant"
        search={search}
      />
      <Section title="Active" aside={standingWords(standing.data?.pages[0])}>
        <LongList
          pages={standing}
          reading="Loading alarms"
          searched={search.settled}
          empty={
            unwatched ? (
              <Message
                kind="empty"
                title="Nothing is watched yet"
                text="An alarm rule says what is looked for in a metric, and who is told. It is rehearsed on the past first."
                action={
                  build
                    ? { label: 'Write a rule', onPress: () => router.push('/alarms/rules/new') }
                    : undefined
                }
              />
            ) : (
              'All clear. No active alarms.'
            )
          }
        >
          {(alarm: Alarm, last) => <AlarmRow key={alarm.id} alarm={alarm} last={last} />}
        </LongList>
      </Section>
      <Section title="Past" aside={countOf(over.data?.pages[0])}>
        <LongList pages={over} reading="Loading alarms" searched={search.settled} empty="No past alarms yet.">
          {(alarm: Alarm, last) => <AlarmRow key={alarm.id} alarm={alarm} last={last} />}
        </LongList>
      </Section>
      <Section title="Rules in force" term="rule" aside={countOf(rules.data?.pages[0])} closed={false}>
        <LongList
          pages={rules}
          reading="Loading rules"
          searched={search.settled}
          empty="No rule is in force."
        >
          {(rule: AlarmRule, last) => (
            <RuleRow
              key={rule.id}
              rule={rule}
              metric={metrics.get(rule.metricId)}
              mayRetire={mayBuild(person, metrics.get(rule.metricId)?.plantId)}
              act={mayAct(person, metrics.get(rule.metricId)?.plantId)}
              last={last}
            />
          )}
        </LongList>
        <DefinitionsOut
          what="Rules"
          file="rules.json"
          build={build}
          write={async () => (await import('../api/files')).rulesAsFile(search.settled)}
        />
      </Section>
    </Page>
  );
}

/** The total, once known. */
const countOf = (page: PageOf<unknown> | undefined): string => (page ? formatNumber(page.total, 0) : '');

/** Number of active alarms, and of those set aside. */
function standingWords(page: (PageOf<unknown> & { readonly setAside: number }) | undefined): string {
  if (!page || page.setAside === 0) return countOf(page);
  return `${formatNumber(page.total - page.setAside, 0)}, and ${formatNumber(page.setAside, 0)} set aside`;
}

function AlarmRow({ alarm, last }: { readonly alarm: Alarm; readonly last: boolean }) {
  const path = usePathname();
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
      chosen={path === `/alarms/${alarm.id}`}
      last={last}
    />
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 8 },
});
