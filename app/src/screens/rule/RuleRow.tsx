import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { AlarmRule, Metric } from '@vivid-beacon/core';
import { usePutRuleBack, useRetireRule } from '../../api/changes';
import { Button } from '../../components/Button';
import { Row } from '../../components/Row';
import { Tray } from '../../components/Tray';
import { useNow } from '../../hooks/useNow';
import { ruleLine } from '../ruleWords';
import { SetAsideForm } from '../SetAsideForm';
import { asideWords, watchedWords } from './asideWords';

/** One rule in force: what it looks for, how it is set aside, and what can be done with it. */
export function RuleRow({
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
  const aside = rule.watches.filter((watch) => watch.aside !== null);
  const all = aside.length > 0 && aside.length === rule.watches.length;
  const out = aside.some((watch) => watch.aside!.kind === 'outOfService');
  const zone = metric?.zone ?? 'UTC';
  const line = [ruleLine(rule, metric), metric?.plantName, watchedWords(rule)].filter(Boolean).join(', ');
  return (
    <>
      <Row
        title={rule.name}
        second={`${line}${asideWords(rule, zone, now)}`}
        last={last}
        right={
          <View style={styles.retire}>
            {aside.length > 0 && (out ? mayRetire : act) && (
              <Button
                look="quiet"
                label="Put back"
                name={`Put ${rule.name} back`}
                disabled={putBack.isPending}
                onPress={() => putBack.mutate({ id: rule.id, metricId: null })}
              />
            )}
            {act && !all && !out && (
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
  retire: { flexShrink: 0, flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'flex-end', gap: 6 },
});
