import type { Factor } from '@vivid-beacon/core';
import { Refusal } from '../../components/Refusal';
import { useState } from 'react';
import { View } from 'react-native';
import { useFactors } from '../../api/data';
import { useSaveFactor } from '../../api/dataChanges';
import { usePerson } from '../../api/session';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { PlusIcon } from '../../components/icons';
import { Page } from '../../components/Page';
import { Row } from '../../components/Row';
import { Tray } from '../../components/Tray';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { mayEverywhere } from '../../api/mayAct';
import { DataPlaces } from './DataPlaces';
import { readTyped } from '../../components/readTyped';

/** Equivalence factors that derived metrics can use: kg of CO2 per kWh and the like, by date. */
export function FactorsScreen() {
  const palette = usePalette();
  const build = mayEverywhere(usePerson(), 'analyst');
  const factors = useFactors();
  const [edited, setEdited] = useState<Factor | 'new' | null>(null);
  return (
    <Page
      title="Data"
      top={<DataPlaces open="/data/factors" />}
      tools={
        build && (
          <Button
            variant="primary"
            label="Factor"
            name="Add a factor"
            icon={<PlusIcon size={20} color={palette.btnT} strokeWidth={1.75} />}
            onPress={() => setEdited('new')}
          />
        )
      }
    >
      <Words as="body" colour={palette.ink2}>
        Factors turn one quantity into another inside derived metrics. Each value holds from its date until
        the next.
      </Words>
      <QueryResult query={factors} reading="Loading factors">
        {(rows) => (
          <View>
            {rows.map((factor, i) => {
              const last = factor.values[factor.values.length - 1];
              return (
                <Row
                  key={factor.id}
                  title={factor.name}
                  second={`${last.value} ${factor.unit} from ${last.from}${factor.values.length > 1 ? `, ${factor.values.length} values` : ''}${factor.source ? ` · ${factor.source}` : ''}`}
                  onPress={build ? () => setEdited(factor) : undefined}
                  last={i === rows.length - 1}
                />
              );
            })}
            {rows.length === 0 && <Words as="body">There are no factors yet.</Words>}
          </View>
        )}
      </QueryResult>
      <Tray title="Equivalence factor" open={edited !== null} onClose={() => setEdited(null)}>
        {edited && (
          <FactorForm
            key={edited === 'new' ? 'new' : edited.id}
            factor={edited === 'new' ? null : edited}
            onDone={() => setEdited(null)}
          />
        )}
      </Tray>
    </Page>
  );
}

function FactorForm({ factor, onDone }: { readonly factor: Factor | null; readonly onDone: () => void }) {
  const save = useSaveFactor();
  const [name, setName] = useState(factor?.name ?? '');
  const [unit, setUnit] = useState(factor?.unit ?? '');
  const [source, setSource] = useState(factor?.source ?? '');
  const [text, setText] = useState(
    (factor?.values ?? []).map(({ from, value }) => `${from}: ${value}`).join('\n'),
  );
  const values = text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .map((line) => {
      const [from, value] = line.split(':');
      return { from: from.trim(), value: readTyped(value ?? '') ?? NaN };
    });
  const wrong = values.find(
    ({ from, value }) => !/^\d{4}-\d{2}-\d{2}$/.test(from) || !Number.isFinite(value),
  );
  return (
    <>
      <Field label="Name of the factor" value={name} onChange={setName} placeholder="CO2 of grid power" />
      <Field label="Unit of the factor" value={unit} onChange={setUnit} placeholder="kg/kWh" />
      <Field
        label="Values, one a line, each from a date on"
        value={text}
        onChange={setText}
        multiline
        placeholder="2026-01-01: 0.207"
        error={wrong ? `"${wrong.from}" must be a date and a value, such as 2026-01-01: 0.207` : undefined}
      />
      <Field label="Where it comes from" value={source} onChange={setSource} />
      <Refusal of={save} />
      <Button
        variant="primary"
        label="Save factor"
        disabled={save.isPending || wrong !== undefined || values.length === 0}
        onPress={() =>
          save.mutate({ id: factor?.id ?? null, name, unit, source, values }, { onSuccess: onDone })
        }
      />
    </>
  );
}
