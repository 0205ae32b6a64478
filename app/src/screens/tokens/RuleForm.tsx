import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { PushRule } from '@vivid-beacon/core';
import { COLLISION_RULE_WORDS, COLLISION_RULES } from '@vivid-beacon/core/src/intake/layout';
import { useChangeRule } from '../../api/pushTokens';
import { AssetPick } from '../../assets/AssetPick';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Refusal } from '../../components/Refusal';
import { Section } from '../../components/Section';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface RuleFormProps {
  readonly tokenId: string;
  readonly rule: PushRule;
}

/** How exposition text of a token finds its metrics. */
export function RuleForm({ tokenId, rule }: RuleFormProps) {
  const palette = usePalette();
  const change = useChangeRule(tokenId);
  const [draft, setDraft] = useState(rule);
  const set = (part: Partial<PushRule>): void => setDraft({ ...draft, ...part });
  const same = JSON.stringify(draft) === JSON.stringify(rule);
  const label = (text: string) => (
    <Words as="second" colour={palette.ink2}>
      {text}
    </Words>
  );
  return (
    <Section title="How its text is matched">
      {label(
        'Labels of OpenMetrics and plain exposition text belong to the series. A sample with the label “metric” goes to the metric of that key; these rules hold for the others.',
      )}
      <View style={styles.fields}>
        <Field
          label="Label that names the asset"
          placeholder="none, such as machine"
          value={draft.assetLabel ?? ''}
          onChange={(text) => set({ assetLabel: text.trim() || null })}
        />
        <Field
          label="Label that names the metric"
          placeholder="the name of the sample"
          value={draft.metricLabel ?? ''}
          onChange={(text) => set({ metricLabel: text.trim() || null })}
        />
      </View>
      {label('A series without a metric')}
      <WordRow
        name="A series without a metric"
        options={[
          { value: 'wait' as const, label: 'waits to be mapped' },
          { value: 'make' as const, label: 'gets asset and metric by its labels' },
        ]}
        chosen={draft.unknown}
        onChoose={(unknown) => set({ unknown })}
      />
      {(draft.assetLabel !== null || draft.unknown === 'make') && (
        <>
          {label('Assets are found or created under')}
          <AssetPick
            name="Asset"
            maxHeight={220}
            chosen={draft.parentId}
            onChoose={({ id }) => set({ parentId: id })}
          />
        </>
      )}
      {label('When different values of one series and time collide in a push, keep')}
      <WordRow
        name="When values collide"
        options={COLLISION_RULES.map((value) => ({
          value,
          label: COLLISION_RULE_WORDS[value].replace('in the file', 'in the push'),
        }))}
        chosen={draft.collisions}
        onChoose={(collisions) => set({ collisions })}
      />
      <Refusal of={change} />
      <View style={styles.foot}>
        <Button
          label={change.isPending ? 'Saving' : 'Save the rule'}
          disabled={same || change.isPending}
          onPress={() => change.mutate(draft)}
        />
      </View>
    </Section>
  );
}

const styles = StyleSheet.create({
  fields: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
  foot: { paddingVertical: 8, alignItems: 'flex-start' },
});
