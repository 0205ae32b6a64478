import { useState } from 'react';
import type { Flag } from '@vivid-beacon/core';
import { useHandFlagOn } from '../../api/flags';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Refusal } from '../../components/Refusal';
import { PersonPick } from '../../assets/PersonPick';

/** Hands a flag on to somebody else. */
export function HandOnForm({ flag, onDone }: { readonly flag: Flag; readonly onDone: () => void }) {
  const hand = useHandFlagOn();
  const [toPersonId, setPerson] = useState('');
  const [remark, setRemark] = useState('');
  return (
    <>
      <PersonPick
        ask={{ least: 'operator', assetId: flag.plantId }}
        chosen={toPersonId}
        onChoose={setPerson}
        without={[flag.to.id]}
      />
      <Field label="Why" value={remark} onChange={setRemark} multiline />
      <Refusal of={hand} />
      <Button
        variant="primary"
        label="Hand it on"
        disabled={toPersonId === '' || hand.isPending}
        onPress={() => hand.mutate({ id: flag.id, toPersonId, remark }, { onSuccess: onDone })}
      />
    </>
  );
}
