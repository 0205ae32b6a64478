import { Refusal } from '../../components/Refusal';
import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { Binding, DerivedWay, Derived } from '@vivid-beacon/core';
import { FUNCTIONS } from '@vivid-beacon/core/src/expressions';
import { useDerived, usePreview } from '../../api/data';
import { useSaveDerived } from '../../api/dataChanges';
import { useMetricsById } from '../../api/catalogue';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Page } from '../../components/Page';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useDebounced } from '../../hooks/useDebounced';
import { usePalette } from '../../theme/useTheme';
import { BindingPicker } from './BindingPicker';
import { useBindingWords } from './DerivedSummary';
import { DerivedPreview } from './DerivedPreview';
import { insertAt, nameFor, wordAt } from './expressionText';

interface DerivedEditorScreenProps {
  /** null = a new one. */
  readonly metricId: string | null;
  readonly assetId: string | null;
}

/** Writes a derived metric: arithmetic over named metrics, with its result always in sight. */
export function DerivedEditorScreen({ metricId, assetId }: DerivedEditorScreenProps) {
  const derived = useDerived(metricId);
  const metric = useMetricsById([metricId]).byId.get(metricId ?? '');
  if (metricId !== null && (!derived.data || !metric)) {
    return (
      <Page title="Derived metric">
        <QueryResult query={derived} reading="Loading the expression">
          {() => <Words as="body">This metric no longer exists.</Words>}
        </QueryResult>
      </Page>
    );
  }
  return (
    <Editor
      key={metricId ?? 'new'}
      metricId={metricId}
      assetId={metric?.assetId ?? assetId ?? ''}
      start={{
        name: metric?.name ?? '',
        unit: metric?.unit ?? '',
        kind: metric?.kind === 'amount' ? 'amount' : 'level',
        decimals: metric?.decimals ?? 2,
        derived: derived.data ?? null,
      }}
    />
  );
}

interface EditorProps {
  readonly metricId: string | null;
  readonly assetId: string;
  readonly start: {
    readonly name: string;
    readonly unit: string;
    readonly kind: 'level' | 'amount';
    readonly decimals: number;
    readonly derived: Derived | null;
  };
}

function Editor({ metricId, assetId, start }: EditorProps) {
  const palette = usePalette();
  const router = useRouter();
  const save = useSaveDerived();
  const [name, setName] = useState(start.name);
  const [unit, setUnit] = useState(start.unit);
  const [expression, setExpression] = useState(start.derived?.expression ?? '');
  const [bindings, setBindings] = useState<Readonly<Record<string, Binding>>>(start.derived?.bindings ?? {});
  const words = useBindingWords(bindings);
  const [way, setWay] = useState<DerivedWay>(start.derived?.way ?? 'totals');
  const [kind, setKind] = useState(start.kind);
  const [picking, setPicking] = useState(false);
  const form = useDebounced({ expression, bindings, way, unit }, 350);
  const preview = usePreview(form, form.expression.trim() !== '');
  const typing = wordAt(expression);
  const offers = Object.entries(FUNCTIONS).filter(([each]) => typing !== '' && each.startsWith(typing));
  const named = Object.keys(bindings).filter(
    (each) => typing !== '' && each !== typing && each.startsWith(typing),
  );
  const back = (): void =>
    router.navigate(metricId ? `/data/metrics/${metricId}` : assetId ? `/data/assets/${assetId}` : '/data');
  const bind = (binding: Binding, label: string): void => {
    const fresh = nameFor(label, Object.keys(bindings));
    setBindings({ ...bindings, [fresh]: binding });
    setExpression(insertAt(expression, fresh));
    setPicking(false);
  };
  return (
    <Page
      title={metricId ? 'Derived metric' : 'New derived metric'}
      onBack={back}
      dock={
        <>
          <Button label="Back" onPress={back} />
          <Button
            variant="primary"
            grow
            label={save.isPending ? 'Saving' : 'Save derived metric'}
            disabled={save.isPending || preview.isError || expression.trim() === '' || name.trim() === ''}
            onPress={() =>
              save.mutate(
                {
                  id: metricId,
                  assetId,
                  name,
                  unit: unit || (preview.data?.foundUnit ?? ''),
                  kind,
                  decimals: start.decimals,
                  expression,
                  bindings,
                  way,
                },
                { onSuccess: ({ id }) => router.navigate(`/data/metrics/${id}`) },
              )
            }
          />
        </>
      }
    >
      <Section title="The last day">
        <DerivedPreview query={preview} asked={form.expression.trim() !== ''} way={way} />
      </Section>
      <Section title="Expression">
        <Field
          label="Expression"
          hideLabel
          value={expression}
          onChange={setExpression}
          multiline
          placeholder="gas / weight"
        />
        <View style={styles.offers}>
          {named.map((each) => (
            <Button
              key={each}
              variant="quiet"
              label={each}
              onPress={() => setExpression(insertAt(expression, each))}
            />
          ))}
          {offers.map(([each, { form: written, does }]) => (
            <Button
              key={each}
              variant="quiet"
              label={`${written}: ${does}`}
              onPress={() => setExpression(insertAt(expression, `${each}(`))}
            />
          ))}
          <Button label="Add a metric or number" onPress={() => setPicking(true)} />
        </View>
        {Object.entries(bindings).map(([each, binding]) => (
          <View key={each} style={styles.binding}>
            <Words as="bodyStrong">{each}</Words>
            <View style={styles.words}>
              <Words as="body" colour={palette.ink2}>
                {words(binding)}
              </Words>
            </View>
            <Button
              variant="quiet"
              label="Remove"
              name={`Remove ${each}`}
              onPress={() => {
                const { [each]: gone, ...rest } = bindings;
                void gone;
                setBindings(rest);
              }}
            />
          </View>
        ))}
      </Section>
      <Section title="How it is calculated">
        <WordRow
          name="How it is calculated"
          options={[
            { value: 'totals', label: 'of the totals' },
            { value: 'samples', label: 'sample by sample' },
          ]}
          chosen={way}
          onChoose={setWay}
        />
        <Words as="body" colour={palette.ink2}>
          {way === 'totals'
            ? 'Everything is summed over the period first, then the expression is evaluated once: sum over sum. Right for ratios such as gas per kg, by the hour as by the year.'
            : 'The expression is evaluated at every sample, and the results are summarised like any metric. Right for limits, differences and conversions at one moment; a mean of ratios would weigh an idle minute like a busy one.'}
        </Words>
        {way === 'samples' && (
          <WordRow
            name="Kind of result"
            options={[
              { value: 'level', label: 'a level' },
              { value: 'amount', label: 'an amount' },
            ]}
            chosen={kind}
            onChoose={(next) => setKind(next as 'level' | 'amount')}
          />
        )}
      </Section>
      <Section title="Name and unit" closed={false}>
        <View style={styles.pair}>
          <Field label="Name of the metric" value={name} onChange={setName} placeholder="Gas per kg" />
          <Field
            label="Unit, if different from the one derived"
            value={unit}
            onChange={setUnit}
            placeholder={preview.data?.foundUnit || 'derived from the expression'}
          />
        </View>
        <Refusal of={save} />
      </Section>
      <Tray title="What the name stands for" open={picking} onClose={() => setPicking(false)}>
        <BindingPicker assetId={assetId} onPick={bind} />
      </Tray>
    </Page>
  );
}

const styles = StyleSheet.create({
  offers: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 6 },
  binding: { flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: 48 },
  words: { flex: 1, minWidth: 0 },
  pair: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
});
