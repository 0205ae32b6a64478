import { useState } from 'react';
import { FLAG_OUTCOMES, OUTCOME_WORDS, type Flag, type FlagOutcome } from '@vivid-beacon/core';
import { useCloseFlag, useFlagCauses } from '../../api/flags';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { OptionalNumberField } from '../../components/OptionalNumberField';
import { PickList } from '../../components/PickList';
import { Refusal } from '../../components/Refusal';

const NO_CAUSE = 'none';

/** Closes a flag: what came of it, its cause, and how long it took. */
export function CloseFlagForm({ flag, onDone }: { readonly flag: Flag; readonly onDone: () => void }) {
  const close = useCloseFlag();
  const causes = useFlagCauses().data ?? [];
  const [outcome, setOutcome] = useState<FlagOutcome | null>(null);
  const [causeId, setCauseId] = useState<string>(NO_CAUSE);
  const [minutesSpent, setMinutes] = useState<number | null>(null);
  const [note, setNote] = useState('');
  return (
    <>
      <PickList
        name="Outcome"
        options={FLAG_OUTCOMES.map((value) => ({ value, label: OUTCOME_WORDS[value] }))}
        chosen={outcome}
        onChoose={setOutcome}
      />
      <Field label="What was found and done" multiline value={note} onChange={setNote} />
      {causes.length > 0 && (
        <PickList
          name="Cause"
          maxHeight={220}
          options={[
            { value: NO_CAUSE, label: 'No cause known' },
            ...causes.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          chosen={causeId}
          onChoose={setCauseId}
        />
      )}
      <OptionalNumberField label="Time spent" unit="min" value={minutesSpent} onChange={setMinutes} />
      <Refusal of={close} />
      <Button
        variant="primary"
        label="Close the flag"
        disabled={outcome === null || close.isPending}
        onPress={() =>
          close.mutate(
            {
              id: flag.id,
              outcome: outcome!,
              note,
              causeId: causeId === NO_CAUSE ? null : causeId,
              minutesSpent,
            },
            { onSuccess: onDone },
          )
        }
      />
    </>
  );
}
