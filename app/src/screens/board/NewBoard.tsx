import { useState } from 'react';
import { useRouter } from 'expo-router';
import { SHARED_WITH_ALL, WHOLE_SCOPE, type Asset, type BoardDocument } from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, startBoard } from '@vivid-beacon/core/src/boards';
import { useSaveBoard } from '../../api/boards';
import { mayBuild } from '../../api/mayAct';
import { usePerson } from '../../api/session';
import { useMetricsBelow } from '../../api/catalogue';
import { AssetPick } from '../../assets/AssetPick';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Refusal } from '../../components/Refusal';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { RAIL_WINDOWS } from '../../rail/railWindows';
import { usePalette } from '../../theme/useTheme';
import { BoardFileIn } from './BoardFileIn';

const WAYS = [
  { value: 'empty', label: 'Empty' },
  { value: 'asset', label: 'For an asset' },
  { value: 'file', label: 'From a file' },
] as const;
type Way = (typeof WAYS)[number]['value'];

const FOR_WHOM = [
  { value: 'me', label: 'for you alone' },
  { value: 'all', label: 'for everybody' },
] as const;

const DEPTHS = ['0', '1', '2', '3'].map((value) => ({
  value,
  label: value === '0' ? 'the asset itself' : `${value} ${value === '1' ? 'level' : 'levels'} below`,
}));

const EMPTY: BoardDocument = {
  version: BOARD_FORMAT_VERSION,
  window: RAIL_WINDOWS.week,
  scope: WHOLE_SCOPE,
  hours: null,
  readouts: [],
};

/** A new board: empty, begun for an asset, or from a file. */
export function NewBoard({ onDone }: { readonly onDone: () => void }) {
  const palette = usePalette();
  const router = useRouter();
  const save = useSaveBoard();
  const mayShare = mayBuild(usePerson());
  const [whom, setWhom] = useState<'me' | 'all'>('me');
  const [way, setWay] = useState<Way>('empty');
  const [title, setTitle] = useState('');
  const [asset, setAsset] = useState<Asset | null>(null);
  const [depth, setDepth] = useState('1');
  const below = useMetricsBelow(asset?.id ?? null, Number(depth));
  const begun = asset && below.data ? startBoard(below.data) : null;
  const add = (named: string, document: BoardDocument): void =>
    save.mutate(
      {
        id: null,
        title: named,
        document,
        revision: 0,
        shares: mayShare && whom === 'all' ? SHARED_WITH_ALL : [],
      },
      {
        onSuccess: (board) => {
          onDone();
          router.push(`/boards/${board.id}`);
        },
      },
    );
  return (
    <>
      <WordRow name="How to begin" options={WAYS} chosen={way} onChoose={setWay} />
      {mayShare && <WordRow name="For whom" options={FOR_WHOM} chosen={whom} onChoose={setWhom} />}
      {way !== 'file' && <Field label="Title" value={title} onChange={setTitle} />}
      {way === 'asset' && (
        <>
          <AssetPick
            name="Asset"
            maxHeight={220}
            chosen={asset?.id ?? null}
            onChoose={(found) => {
              setAsset(found);
              if (title === '' || title === asset?.name) setTitle(found.name);
            }}
          />
          <WordRow name="How deep" options={DEPTHS} chosen={depth} onChoose={setDepth} />
          <Words as="second" colour={palette.ink2}>
            {below.error?.message ??
              (asset === null
                ? 'Choose the asset.'
                : begun === null
                  ? 'Loading its metrics'
                  : `${begun.readouts.length} readouts: its own metrics, and below it one readout for each name, by asset.`)}
          </Words>
        </>
      )}
      {way === 'file' && <BoardFileIn saving={save.isPending} onTake={add} />}
      <Refusal of={save} />
      {way !== 'file' && (
        <Button
          variant="primary"
          label="Create the board"
          disabled={save.isPending || (way === 'asset' && (!begun || begun.readouts.length === 0))}
          onPress={() => add(title, way === 'asset' && begun ? begun : EMPTY)}
        />
      )}
    </>
  );
}
