import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { AlarmRule, Metric } from '@vivid-beacon/core';
import { usePutInForce, usePutRuleBack, useRetireRule } from '../../api/changes';
import { Button } from '../../components/Button';
import { RemovalTray } from '../../components/RemovalTray';
import { Row } from '../../components/Row';
import { Tray } from '../../components/Tray';
import { useLayout } from '../../hooks/useLayout';
import { useNow } from '../../hooks/useNow';
import { ruleLine } from '../ruleWords';
import { SetAsideForm } from '../SetAsideForm';
import { useUndoStore } from '../../stores/undoStore';
import { asideWords, watchedWords } from './asideWords';
import { draftOf } from './draft';

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
  const [asking, setAsking] = useState(false);
  const [shelving, setShelving] = useState(false);
  const retire = useRetireRule();
  const put = usePutInForce();
  const { give } = useUndoStore((state) => state.actions);
  const putBack = usePutRuleBack();
  const now = useNow(60_000);
  const { wide } = useLayout();
  const { metrics, aside, how } = rule.watched;
  const all = aside > 0 && aside === metrics;
  const out = how?.kind === 'outOfService';
  const zone = metric?.zone ?? 'UTC';
  const line = [ruleLine(rule), metric?.plantName, watchedWords(rule)].filter(Boolean).join(', ');
  // The row goes with its rule, so that what follows must not hang on it.
  const withdraw = (): void =>
    void retire
      .mutateAsync(rule.id)
      .then(() => {
        setAsking(false);
        give({
          words: `${rule.name} withdrawn`,
          // A rule begins anew: what it watched is watched from now on.
          undo: () => put.mutateAsync({ ...draftOf(rule), replaces: null }),
        });
      })
      .catch(() => undefined);
  const tools = (
    <View style={[styles.tools, !wide && styles.below]}>
      {aside > 0 && (out ? mayRetire : act) && (
        <Button
          variant="quiet"
          label="Reinstate"
          name={`Put ${rule.name} back`}
          disabled={putBack.isPending}
          onPress={() => putBack.mutate({ id: rule.id, metricId: null })}
        />
      )}
      {act && !all && !out && (
        <Button
          variant="quiet"
          label="Shelve"
          name={`Shelve ${rule.name}`}
          onPress={() => setShelving(true)}
        />
      )}
      {mayRetire && (
        <Button
          variant="quiet"
          label="Change"
          name={`Change ${rule.name}`}
          onPress={() => router.push({ pathname: '/alarms/rules/new', params: { from: rule.id } })}
        />
      )}
      {mayRetire && (
        <Button
          variant="quiet"
          label="Withdraw"
          name={`Withdraw ${rule.name}`}
          onPress={() => setAsking(true)}
        />
      )}
    </View>
  );
  return (
    <>
      <Row
        title={rule.name}
        second={`${line}${asideWords(rule, zone, now)}`}
        last={last}
        right={wide && tools}
        below={!wide && tools}
      />
      <RemovalTray
        title={`Withdraw ${rule.name}`}
        open={asking}
        words="It watches nothing any more. Its alarms and their history stay; an active alarm ends once it is acknowledged."
        effects={[]}
        verb="Withdraw"
        pending={retire.isPending}
        error={retire.error?.message ?? null}
        onClose={() => setAsking(false)}
        onRemove={withdraw}
      />
      <Tray title="Shelve" open={shelving} onClose={() => setShelving(false)}>
        {shelving && <SetAsideForm ruleId={rule.id} ruleName={rule.name} onDone={() => setShelving(false)} />}
      </Tray>
    </>
  );
}

const styles = StyleSheet.create({
  below: { paddingBottom: 10 },
  tools: { flexShrink: 0, flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'flex-end', gap: 6 },
});
