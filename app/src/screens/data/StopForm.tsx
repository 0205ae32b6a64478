import { MINUTE_MS } from '@vivid-beacon/core';
import { useState } from 'react';
import { View } from 'react-native';
import type { StopEntry } from '@vivid-beacon/core';
import { useAssetsById } from '../../api/catalogue';
import { useReasons } from '../../api/data';
import { AssetPick } from '../../assets/AssetPick';
import { useRemoveStop, useSaveStop } from '../../api/dataChanges';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { MomentField } from '../../components/MomentField';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { useUndoStore } from '../../stores/undoStore';
import { usePalette } from '../../theme/useTheme';
import { deviceZone } from '../deviceZone';

interface StopFormProps {
  /** null = a new one. */
  readonly stop: StopEntry | null;
  readonly assetId: string | null;
  readonly onDone: () => void;
}

const SINCE = [
  { value: '0', label: 'now' },
  { value: '5', label: '5 min ago' },
  { value: '15', label: '15 min ago' },
  { value: '60', label: '1 h ago' },
] as const;

/** Form for a stop, usable with one thumb: start, reason, end unless open. */
export function StopForm({ stop, assetId, onDone }: StopFormProps) {
  const palette = usePalette();
  const now = useNow();
  const save = useSaveStop();
  const remove = useRemoveStop();
  const { give } = useUndoStore((state) => state.actions);
  const [chosen, setChosen] = useState(stop?.assetId ?? assetId);
  const reasons = useReasons(chosen);
  const [start, setStart] = useState<number | null>(stop?.start ?? Math.floor(now / MINUTE_MS) * MINUTE_MS);
  const [end, setEnd] = useState<number | null>(stop?.end ?? null);
  const [ended, setEnded] = useState(stop?.end != null);
  const [reason, setReason] = useState(stop?.reason ?? '');
  const [category, setCategory] = useState(stop?.category ?? '');
  const [note, setNote] = useState(stop?.note ?? '');
  const asset = useAssetsById([chosen]).byId.get(chosen ?? '');
  const zone = asset?.zone ?? deviceZone();
  const removeIt = (): void => {
    if (!stop) return;
    const { start: from, end: to, reason: why, category: group, note: words } = stop;
    const again = {
      id: null,
      assetId: stop.assetId,
      start: from,
      end: to,
      reason: why,
      category: group,
      note: words,
    };
    void remove
      .mutateAsync(stop.id)
      .then(() => {
        give({ words: `The stop "${why}" removed`, undo: () => save.mutateAsync(again) });
        onDone();
      })
      .catch(() => undefined);
  };
  return (
    <>
      {chosen === null ? (
        <AssetPick
          name="Asset that stopped"
          maxHeight={220}
          chosen={null}
          onChoose={({ id }) => setChosen(id)}
        />
      ) : (
        <Words as="rowTitle">{asset?.title ?? ''}</Words>
      )}
      <Words as="second" colour={palette.ink2}>
        Stopped since
      </Words>
      <WordRow
        name="Stopped since"
        options={SINCE}
        chosen={null}
        onChoose={(minutes) =>
          setStart(Math.floor(now / MINUTE_MS) * MINUTE_MS - Number(minutes) * MINUTE_MS)
        }
      />
      <MomentField label="Since" value={start} zone={zone} onChange={setStart} />
      <Words as="second" colour={palette.ink2}>
        Reason
      </Words>
      {(reasons.data ?? []).length > 0 && (
        <WordRow
          name="Reasons used before"
          options={reasons.data!.map((value) => ({ value, label: value }))}
          chosen={reason}
          onChoose={setReason}
        />
      )}
      <Field
        label="Reason of the stop"
        hideLabel
        value={reason}
        onChange={setReason}
        placeholder="Belt torn"
      />
      <WordRow
        name="Still open"
        options={[
          { value: 'open', label: 'still stopped' },
          { value: 'ended', label: 'running again' },
        ]}
        chosen={ended ? 'ended' : 'open'}
        onChoose={(value) => {
          setEnded(value === 'ended');
          if (value === 'ended' && end === null) setEnd(Math.floor(now / MINUTE_MS) * MINUTE_MS);
        }}
      />
      {ended && <MomentField label="Until" value={end} zone={zone} onChange={setEnd} />}
      <Field
        label="Category, if you sort them"
        value={category}
        onChange={setCategory}
        placeholder="Mechanical"
      />
      <Field label="Note" value={note} onChange={setNote} multiline />
      {(save.isError || remove.isError) && (
        <Words as="body" colour={palette.breachT}>
          {(save.error ?? remove.error)!.message}
        </Words>
      )}
      <View style={{ flexDirection: 'row', gap: 10, flexWrap: 'wrap' }}>
        {stop && <Button variant="quiet" label="Remove" onPress={removeIt} />}
        <Button
          variant="primary"
          grow
          label={stop ? 'Save stop' : 'Enter stop'}
          disabled={
            save.isPending || !chosen || start === null || reason.trim() === '' || (ended && end === null)
          }
          onPress={() =>
            save.mutate(
              {
                id: stop?.id ?? null,
                assetId: chosen!,
                start: start!,
                end: ended ? end : null,
                category,
                reason,
                note,
              },
              { onSuccess: onDone },
            )
          }
        />
      </View>
    </>
  );
}
