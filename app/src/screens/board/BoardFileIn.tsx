import { useRef, useState } from 'react';
import { View } from 'react-native';
import type { BoardDocument, BoardFile } from '@vivid-beacon/core';
import { matchMetrics, readBoardFile, takeBoard, type FoundHere } from '@vivid-beacon/core/src/boards';
import { findFileMetrics, findPlaces } from '../../api/files';
import { MetricPick } from '../../assets/MetricPick';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface BoardFileInProps {
  readonly saving: boolean;
  readonly onTake: (title: string, document: BoardDocument) => void;
}

const LARGEST = 4_000_000;

const NOWHERE: Omit<FoundHere, 'metrics'> = { assets: new Map(), indicators: new Map(), boards: new Map() };

/**
 * Reads a board file: what it names is found again by key or by name; metrics that are not known here are mapped by hand, and
 * what is dropped or frozen is told before the board is made.
 */
export function BoardFileIn({ saving, onTake }: BoardFileInProps) {
  const palette = usePalette();
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<BoardFile | null>(null);
  const [title, setTitle] = useState('');
  const [mapped, setMapped] = useState<ReadonlyMap<string, string | null>>(new Map());
  const [places, setPlaces] = useState(NOWHERE);
  const [wrong, setWrong] = useState<string | null>(null);
  const [asking, setAsking] = useState<string | null>(null);
  const read = async (chosen: File | undefined): Promise<void> => {
    setFile(null);
    if (!chosen) return;
    try {
      if (chosen.size > LARGEST) throw new Error('A board file has at most 4 MB.');
      const found = readBoardFile(await chosen.text());
      const [metrics, here] = await Promise.all([findFileMetrics(found), findPlaces(found)]);
      setMapped(matchMetrics(found, metrics));
      setPlaces(here);
      setFile(found);
      setTitle(found.title);
      setWrong(null);
    } catch (error) {
      setWrong((error as Error).message);
    }
  };
  const unknown = file?.metrics.filter(({ id }) => mapped.get(id) === null || asking === id) ?? [];
  const result = file && takeBoard(file, { ...places, metrics: mapped });
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        aria-label="Board file"
        hidden
        onChange={(event) => void read(event.currentTarget.files?.[0])}
      />
      <Button
        label={file ? 'Choose another file' : 'Choose a board file'}
        onPress={() => input.current?.click()}
      />
      {wrong && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>
            {`The file cannot be taken. ${wrong}`}
          </Words>
        </View>
      )}
      {file && result && (
        <>
          <Field label="Title" value={title} onChange={setTitle} />
          <Words as="body">
            {`${result.document.readouts.length} of ${file.document.readouts.length} readouts can be shown here.`}
          </Words>
          {result.told.length > 0 && (
            <View role="list" aria-label="Dropped or frozen on the way in">
              {result.told.map((words) => (
                <View key={words} role="listitem">
                  <Words as="second">{words}</Words>
                </View>
              ))}
            </View>
          )}
          {unknown.map(({ id, name, asset, unit }) => (
            <View key={id} style={{ gap: 6 }}>
              <Words as="rowTitle">{`${name}, ${asset}${unit ? ` (${unit})` : ''}`}</Words>
              <Words as="second" colour={palette.ink2}>
                Not known here. Choose the metric that stands for it, or leave its readouts out.
              </Words>
              {asking === id ? (
                <MetricPick
                  name={`Metric for ${name}`}
                  maxHeight={200}
                  filter={unit === '' ? {} : { unit }}
                  chosen={mapped.get(id) ?? null}
                  onChoose={(to) => {
                    setMapped(new Map([...mapped, [id, to.id]]));
                    setAsking(null);
                  }}
                />
              ) : (
                <Button variant="quiet" label="Choose a metric" onPress={() => setAsking(id)} />
              )}
            </View>
          ))}
          <Button
            variant="primary"
            label="Create the board"
            disabled={saving || title.trim() === ''}
            onPress={() => onTake(title, result.document)}
          />
        </>
      )}
    </>
  );
}
