import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DAY_MS, type Metric } from '@vivid-beacon/core';
import { usePlants } from '../../api/catalogue';
import { useAddToken } from '../../api/changes';
import { mayBuild, mayEverywhere } from '../../api/mayAct';
import { usePerson } from '../../api/session';
import { MetricPick } from '../../assets/MetricPick';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Refusal } from '../../components/Refusal';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';

/** Instead of the id of a plant. */
const EVERY = 'every';
const ENDS = [
  { value: 'none', label: 'when it is revoked' },
  { value: '30', label: 'in 30 days' },
  { value: '365', label: 'in 365 days' },
] as const;
const WHICH = [
  { value: 'all', label: 'every metric there' },
  { value: 'some', label: 'some metrics' },
] as const;

/** A new push token: where it writes, which metrics, and until when. It is shown once. */
export function NewToken() {
  const palette = usePalette();
  const add = useAddToken();
  const now = useNow();
  const person = usePerson();
  const everywhere = mayEverywhere(person, 'analyst');
  const plants = (usePlants().data ?? []).filter(({ id }) => mayBuild(person, id));
  const [name, setName] = useState('');
  const [plant, setPlant] = useState<string | null>(null);
  const [days, setDays] = useState<(typeof ENDS)[number]['value']>('none');
  /** null = all. */
  const [metrics, setMetrics] = useState<readonly Metric[] | null>(null);
  const chosen = plant ?? (everywhere ? EVERY : (plants[0]?.id ?? EVERY));
  const plantId = chosen === EVERY ? null : chosen;
  const create = (): void =>
    add.mutate(
      {
        name,
        plantId,
        metricIds: metrics && metrics.map(({ id }) => id),
        endsAt: days === 'none' ? null : now + Number(days) * DAY_MS,
      },
      {
        onSuccess: () => {
          setName('');
          setMetrics(null);
        },
      },
    );
  return (
    <>
      <View style={styles.form}>
        <Field label="Name of the sender" value={name} onChange={setName} />
      </View>
      <Words as="second" colour={palette.ink2}>
        It writes at
      </Words>
      <WordRow
        name="Plant of the token"
        options={[
          ...(everywhere ? [{ value: EVERY, label: 'every plant' }] : []),
          ...plants.map(({ id, name: label }) => ({ value: id, label })),
        ]}
        chosen={chosen}
        onChoose={(id) => {
          setPlant(id);
          // Those of another plant it could not write.
          setMetrics(metrics && metrics.filter((metric) => id === EVERY || metric.plantId === id));
        }}
      />
      <WordRow
        name="Metrics of the token"
        options={WHICH}
        chosen={metrics === null ? 'all' : 'some'}
        onChoose={(which) => setMetrics(which === 'all' ? null : [])}
      />
      {metrics !== null && (
        <>
          {metrics.map(({ id, name: metric, assetName }) => (
            <View key={id} style={styles.metric}>
              <Words as="body">{`${metric}, ${assetName}`}</Words>
              <Button
                variant="quiet"
                label="Take away"
                name={`Take ${metric}, ${assetName} away`}
                onPress={() => setMetrics(metrics.filter((each) => each.id !== id))}
              />
            </View>
          ))}
          <MetricPick
            name="Metric it may write"
            maxHeight={200}
            filter={{ origin: 'samples', ...(plantId === null ? {} : { under: plantId }) }}
            leaveOut={new Set(metrics.map(({ id }) => id))}
            chosen={null}
            onChoose={(metric) => setMetrics([...metrics, metric])}
          />
        </>
      )}
      <Words as="second" colour={palette.ink2}>
        It ends
      </Words>
      <WordRow name="End of the token" options={ENDS} chosen={days} onChoose={setDays} />
      <Refusal of={add} />
      <View style={styles.form}>
        <Button
          label="Create a token"
          variant="primary"
          disabled={add.isPending || (metrics !== null && metrics.length === 0)}
          onPress={create}
        />
      </View>
      {add.data && (
        <View
          style={[styles.token, { borderColor: palette.sea, backgroundColor: palette.water }]}
          role="status"
        >
          <Words as="bodyStrong">Copy it now; it is not shown again.</Words>
          <Words as="body">{add.data.token}</Words>
        </View>
      )}
    </>
  );
}

const styles = StyleSheet.create({
  form: { flexDirection: 'row', gap: 10, alignItems: 'flex-end', paddingVertical: 12, flexWrap: 'wrap' },
  metric: { flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', gap: 10 },
  token: { borderWidth: 1.5, borderRadius: 10, padding: 12, gap: 4 },
});
