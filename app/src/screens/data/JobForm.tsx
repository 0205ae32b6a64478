import { Refusal } from '../../components/Refusal';
import { MINUTE_MS } from '@vivid-beacon/core';
import { useState } from 'react';
import type { Asset } from '@vivid-beacon/core';
import { useStatusKinds } from '../../api/data';
import { useSaveJob } from '../../api/dataChanges';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { MomentField } from '../../components/MomentField';
import { PickList } from '../../components/PickList';
import { WordRow } from '../../components/WordRow';
import { useNow } from '../../hooks/useNow';
import { pathOf } from './assetTree';

/** Enters a job with its first status. */
export function JobForm({
  assets,
  onDone,
}: {
  readonly assets: readonly Asset[];
  readonly onDone: () => void;
}) {
  const now = useNow();
  const save = useSaveJob();
  const desks = assets.filter(({ kind, name }) => /desk/i.test(`${kind} ${name}`));
  const [assetId, setAsset] = useState<string | null>(desks.length === 1 ? desks[0].id : null);
  const kinds = useStatusKinds(assetId);
  const [number, setNumber] = useState('');
  const [category, setCategory] = useState('');
  const [customer, setCustomer] = useState('');
  const [owner, setOwner] = useState('');
  const [status, setStatus] = useState('Received');
  const [at, setAt] = useState<number | null>(Math.floor(now / MINUTE_MS) * MINUTE_MS);
  const zone = assets.find(({ id }) => id === assetId)?.zone ?? 'UTC';
  return (
    <>
      <PickList
        name="Desk"
        maxHeight={180}
        options={(desks.length > 0 ? desks : assets).map((each) => ({
          value: each.id,
          label: each.name,
          detail: pathOf(each, assets).join(' / '),
        }))}
        chosen={assetId}
        onChoose={setAsset}
      />
      <Field label="Number of the job" value={number} onChange={setNumber} />
      <Field label="Category" value={category} onChange={setCategory} placeholder="Missing linen" />
      <Field label="Customer" value={customer} onChange={setCustomer} />
      <Field label="Owner" value={owner} onChange={setOwner} />
      {(kinds.data ?? []).length > 0 && (
        <WordRow
          name="Status"
          options={kinds.data!.map(({ status: value }) => ({ value, label: value }))}
          chosen={status}
          onChoose={setStatus}
        />
      )}
      <Field label="Status of the job" value={status} onChange={setStatus} />
      <MomentField label="Since" value={at} zone={zone} onChange={setAt} />
      <Refusal of={save} />
      <Button
        look="main"
        label="Enter job"
        disabled={save.isPending || !assetId || number.trim() === '' || status.trim() === '' || at === null}
        onPress={() =>
          save.mutate(
            {
              assetId: assetId!,
              number,
              category,
              customer,
              owner,
              fields: {},
              history: [{ at: at!, status }],
            },
            { onSuccess: onDone },
          )
        }
      />
    </>
  );
}
