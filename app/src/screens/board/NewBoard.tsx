import { useState } from 'react';
import { useRouter } from 'expo-router';
import {
  BOARD_FORMAT_VERSION,
  startBoard,
  WHOLE_SCOPE,
  type Asset,
  type BoardDocument,
} from '@vivid-beacon/core';
import { useSaveBoard } from '../../api/changes';
import { useAssets, useMetrics } from '../../api/queries';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { PickList } from '../../components/PickList';
import { Refusal } from '../../components/Refusal';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { RAIL_WINDOWS } from '../../rail/railWindows';
import { usePalette } from '../../theme/useTheme';
import { pathOf } from '../data/assetTree';
import { BoardFileIn } from './BoardFileIn';

const WAYS = [
  { value: 'empty', label: 'Empty' },
  { value: 'asset', label: 'For an asset' },
  { value: 'file', label: 'From a file' },
] as const;
type Way = (typeof WAYS)[number]['value'];

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
  const assets = useAssets().data ?? [];
  const metrics = useMetrics().data ?? [];
  const [way, setWay] = useState<Way>('empty');
  const [title, setTitle] = useState('');
  const [asset, setAsset] = useState<Asset | null>(null);
  const [depth, setDepth] = useState('1');
  const begun = asset && startBoard(asset, assets, metrics, Number(depth));
  const add = (named: string, document: BoardDocument): void =>
    save.mutate(
      { id: null, title: named, document, revision: 0 },
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
      {way !== 'file' && <Field label="Title" value={title} onChange={setTitle} />}
      {way === 'asset' && (
        <>
          <PickList
            name="Asset"
            maxHeight={220}
            options={assets.map((each) => ({
              value: each.id,
              label: each.name,
              detail: pathOf(each, assets).join(' / '),
            }))}
            chosen={asset?.id ?? null}
            onChoose={(id) => {
              const found = assets.find((each) => each.id === id)!;
              setAsset(found);
              if (title === '' || title === asset?.name) setTitle(found.name);
            }}
          />
          <WordRow name="How deep" options={DEPTHS} chosen={depth} onChoose={setDepth} />
          <Words as="second" colour={palette.ink2}>
            {begun
              ? `${begun.readouts.length} readouts: its own metrics, and below it one readout for each name, by asset.`
              : 'Choose the asset.'}
          </Words>
        </>
      )}
      {way === 'file' && <BoardFileIn metrics={metrics} saving={save.isPending} onTake={add} />}
      <Refusal of={save} />
      {way !== 'file' && (
        <Button
          look="main"
          label="Make the board"
          disabled={save.isPending || (way === 'asset' && (!begun || begun.readouts.length === 0))}
          onPress={() => add(title, way === 'asset' && begun ? begun : EMPTY)}
        />
      )}
    </>
  );
}
