import { Refusal } from '../../components/Refusal';
import { HOUR_MS } from '@vivid-beacon/core';
import { useState } from 'react';
import type { RemarkKind } from '@vivid-beacon/core';
import { useAddStretchRemark } from '../../api/dataChanges';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { MomentField } from '../../components/MomentField';
import { WordRow } from '../../components/WordRow';

const KINDS = [
  { value: 'abnormal', label: 'abnormal behaviour' },
  { value: 'reason', label: 'a reason' },
  { value: 'note', label: 'a note' },
] as const;

interface RemarkFormProps {
  readonly assetId: string;
  readonly zone: string;
  readonly now: number;
  readonly onDone: () => void;
}

/** Puts a remark on a stretch of time of an asset; it is shown on its trends. */
export function RemarkForm({ assetId, zone, now, onDone }: RemarkFormProps) {
  const add = useAddStretchRemark();
  const [start, setStart] = useState<number | null>(now - HOUR_MS);
  const [end, setEnd] = useState<number | null>(now);
  const [kind, setKind] = useState<RemarkKind>('abnormal');
  const [text, setText] = useState('');
  return (
    <>
      <WordRow name="Kind of remark" options={KINDS} chosen={kind} onChoose={setKind} />
      <MomentField label="From" value={start} zone={zone} onChange={setStart} />
      <MomentField label="To" value={end} zone={zone} onChange={setEnd} />
      <Field label="Remark" value={text} onChange={setText} multiline />
      <Refusal of={add} />
      <Button
        variant="primary"
        label="Add the remark"
        disabled={add.isPending || start === null || end === null || text.trim() === ''}
        onPress={() => add.mutate({ assetId, start: start!, end: end!, kind, text }, { onSuccess: onDone })}
      />
    </>
  );
}
