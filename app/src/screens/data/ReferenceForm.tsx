import { Refusal } from '../../components/Refusal';
import { useState } from 'react';
import { BUCKET_WORDS, REFERENCE_PERIODS, type ReferencePeriod } from '@vivid-beacon/core';
import { useAddReference } from '../../api/dataChanges';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

/** A new reference series: output, floor area, headcount, budget or weather, one value a period. */
export function ReferenceForm({
  assetId,
  onDone,
}: {
  readonly assetId: string;
  readonly onDone: (id: string) => void;
}) {
  const palette = usePalette();
  const add = useAddReference();
  const [name, setName] = useState('');
  const [unit, setUnit] = useState('');
  const [kind, setKind] = useState<'level' | 'amount'>('amount');
  const [period, setPeriod] = useState<ReferencePeriod>('month');
  return (
    <>
      <Field label="Name of the series" value={name} onChange={setName} placeholder="Gas budget" />
      <Field label="Unit of the series" value={unit} onChange={setUnit} placeholder="kWh" />
      <Words as="second" colour={palette.ink2}>
        One value for each
      </Words>
      <WordRow
        name="Period"
        options={REFERENCE_PERIODS.map((value) => ({ value, label: BUCKET_WORDS[value] }))}
        chosen={period}
        onChoose={setPeriod}
      />
      <Words as="second" colour={palette.ink2}>
        The value is
      </Words>
      <WordRow
        name="What the value is"
        options={[
          { value: 'amount', label: 'an amount for the whole period' },
          { value: 'level', label: 'a level that holds through it' },
        ]}
        chosen={kind}
        onChoose={(next) => setKind(next as 'level' | 'amount')}
      />
      <Words as="second" colour={palette.ink2}>
        {kind === 'amount'
          ? 'A budget or an output: part of a period gets its share of the time.'
          : 'A floor area or a headcount: it is the same at every moment of the period.'}
      </Words>
      <Refusal of={add} />
      <Button
        variant="primary"
        label="Add series"
        disabled={add.isPending || name.trim() === ''}
        onPress={() =>
          add.mutate(
            { assetId, name, unit, kind, period, decimals: 0 },
            { onSuccess: ({ id }) => onDone(id) },
          )
        }
      />
    </>
  );
}
