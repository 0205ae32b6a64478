import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { HEALTH_DAYS, type AlarmHealth, type HealthCheck } from '@vivid-beacon/core';
import { useKeepOperators } from '../../api/changes';
import { mayEverywhere } from '../../api/mayAct';
import { useAlarmHealth, useWatch } from '../../api/queries';
import { usePerson } from '../../api/session';
import { QueryResult } from '../../components/QueryResult';
import { Fact } from '../../components/Fact';
import { LampWord } from '../../components/LampWord';
import { Page } from '../../components/Page';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { FrequentRules } from './FrequentRules';
import { checkWords, otherFigures } from './healthWords';

const WINDOWS = HEALTH_DAYS.map((days) => ({
  value: String(days),
  label: days === 1 ? '24 h' : `${days} days`,
}));
const OPERATORS = [1, 2, 3, 4].map((n) => ({
  value: String(n),
  label: n === 1 ? '1 person' : `${n} people`,
}));

/** How much the alarms ask of the people who answer them, against published guidelines. */
export function AlarmHealthScreen() {
  const palette = usePalette();
  const router = useRouter();
  const [days, setDays] = useState<(typeof HEALTH_DAYS)[number]>(7);
  const [operators, setOperators] = useState<number | null>(null);
  const build = mayEverywhere(usePerson(), 'analyst');
  const keep = useKeepOperators();
  const query = useAlarmHealth(days, operators);
  const chosen = operators ?? query.data?.health.operators;
  const choose = (count: number): void => {
    setOperators(count);
    if (build) keep.mutate(count);
  };
  return (
    <Page
      title="Alarm health"
      under="The load that alarms put on the people who answer them"
      onBack={() => router.navigate('/alarms')}
      backName="Back to alarms"
    >
      <WordRow
        name="Window"
        options={WINDOWS}
        chosen={String(days)}
        onChoose={(chosen) => setDays(HEALTH_DAYS.find((each) => String(each) === chosen)!)}
      />
      <View>
        <Words as="second" colour={palette.ink2}>
          {build
            ? 'People answering alarms at the same time (for everyone)'
            : 'People answering alarms at the same time'}
        </Words>
        <WordRow
          name="People answering alarms at the same time"
          options={OPERATORS}
          chosen={chosen === undefined ? null : String(chosen)}
          onChoose={(count) => choose(Number(count))}
        />
        {keep.isError && (
          <Words as="second" colour={palette.breachT}>{`Not saved. ${keep.error.message}`}</Words>
        )}
      </View>
      <QueryResult query={query} reading="Counting alarms">
        {({ health, checks, rules }) => (
          <>
            <Checks checks={checks} />
            <Figures health={health} />
            <FrequentRules health={health} rules={rules} mayMend={build} />
          </>
        )}
      </QueryResult>
      <Words as="second" colour={palette.ink2} style={styles.source}>
        Rates are per person. Guidelines follow ISA-18.2 and EEMUA 191 from memory; they are not quoted.
        Alarms that were shelved, suppressed by design or out of service do not count: nobody was notified.
        Shares by priority are shown from 20 alarms on.
      </Words>
    </Page>
  );
}

function Checks({ checks }: { readonly checks: readonly HealthCheck[] }) {
  return (
    <Section title="Against the guidelines">
      {checks.map((check, i) => {
        const { name, value, guide } = checkWords(check);
        return (
          <Row
            key={check.key}
            title={name}
            second={guide}
            left={<LampWord level={check.level} />}
            right={<Words as="figure">{value}</Words>}
            last={i === checks.length - 1}
          />
        );
      })}
    </Section>
  );
}

function Figures({ health }: { readonly health: AlarmHealth }) {
  const zone = useWatch().data?.plants[0]?.zone ?? 'UTC';
  const now = useNow(60_000);
  return (
    <Section title="More figures" closed={false}>
      {otherFigures(health, zone, now).map(([name, text]) => (
        <Fact key={name} name={name} text={text} />
      ))}
    </Section>
  );
}

const styles = StyleSheet.create({
  source: { paddingTop: 14, maxWidth: 640 },
});
