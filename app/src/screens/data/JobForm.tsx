import { Refusal } from '../../components/Refusal';
import { MINUTE_MS } from '@vivid-beacon/core';
import { useState } from 'react';
import type { Asset } from '@vivid-beacon/core';
import { useAssetPages } from '../../api/catalogue';
import { useStatusKinds } from '../../api/data';
import { AssetPick } from '../../assets/AssetPick';
import { useSaveJob } from '../../api/dataChanges';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { MomentField } from '../../components/MomentField';
import { WordRow } from '../../components/WordRow';
import { useNow } from '../../hooks/useNow';

/** Enters a job with its first status. */
export function JobForm({ onDone }: { readonly onDone: () => void }) {
  const now = useNow();
  const save = useSaveJob();
  const desks = useAssetPages({ search: 'desk' }).data?.pages[0].items ?? [];
  const [chosen, setChosen] = useState<Asset | null>(null);
  const asset = chosen ?? (desks.length === 1 ? desks[0] : null);
  const assetId = asset?.id ?? null;
  const kinds = useStatusKinds(assetId);
  const [number, setNumber] = useState('');
  const [category, setCategory] = useState('');
  const [customer, setCustomer] = useState('');
  const [owner, setOwner] = useState('');
  const [status, setStatus] = useState('Received');
  const [at, setAt] = useState<number | null>(Math.floor(now / MINUTE_MS) * MINUTE_MS);
  const zone = asset?.zone ?? 'UTC';
  return (
    <>
      <AssetPick name="Desk" maxHeight={180} chosen={assetId} onChoose={setChosen} />
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
        variant="primary"
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
