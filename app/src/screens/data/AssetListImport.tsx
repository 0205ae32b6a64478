import type { AssetImportRow } from '@vivid-beacon/core';
import { Refusal } from '../../components/Refusal';
import { useRef, useState } from 'react';
import Papa from 'papaparse';
import { View } from 'react-native';
import { decodeText, guessSeparator } from '@vivid-beacon/core/src/intakeFiles';
import { useImportAssets } from '../../api/dataChanges';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { attributeValue } from './attributeText';

const PATH = /^(path|place|pfad)$/i;
const KIND = /^(kind|type|art)$/i;
const ZONE = /^(zone|time ?zone)$/i;

/** Reads a list of assets: a column "path" with names parted by /, "kind", "zone"; every other column is an attribute. */
export function readAssetList(text: string): readonly AssetImportRow[] | string {
  const { data } = Papa.parse<string[]>(text.trim(), {
    delimiter: guessSeparator(text),
    skipEmptyLines: 'greedy',
  });
  const [head, ...rows] = data;
  const at = (pattern: RegExp): number => (head ?? []).findIndex((each) => pattern.test(each.trim()));
  const path = at(PATH);
  if (path < 0)
    return 'The first row must name the columns, one of them "path" with names from the plant down.';
  const [kind, zone] = [at(KIND), at(ZONE)];
  return rows.map((cells, i) => ({
    line: i + 2,
    path: (cells[path] ?? '')
      .split('/')
      .map((each) => each.trim())
      .filter(Boolean),
    kind: kind < 0 ? '' : (cells[kind] ?? '').trim(),
    zone: zone < 0 ? null : (cells[zone] ?? '').trim() || null,
    attributes: Object.fromEntries(
      head.flatMap((name, k) => {
        const value = (cells[k] ?? '').trim();
        if (k === path || k === kind || k === zone || value === '' || name.trim() === '') return [];
        return [[name.trim(), attributeValue(value)]];
      }),
    ),
  }));
}

/** Adds many assets at once, pasted or from a file. */
export function AssetListImport() {
  const palette = usePalette();
  const [text, setText] = useState('');
  const add = useImportAssets();
  const input = useRef<HTMLInputElement>(null);
  const read = text.trim() === '' ? null : readAssetList(text);
  return (
    <>
      <Words as="body" colour={palette.ink2}>
        A table with a column path (Quayside / Wash house / Washer 1), and if you like kind, zone and
        attributes. Assets that are there get the new facts.
      </Words>
      <input
        ref={input}
        type="file"
        accept=".csv,.tsv,.txt,text/*"
        aria-label="File with assets"
        style={{ display: 'none' }}
        onChange={async (event) => {
          const file = event.currentTarget.files?.[0];
          if (file) setText(decodeText(new Uint8Array(await file.arrayBuffer())).text);
        }}
      />
      <Button variant="quiet" label="Choose a file" onPress={() => input.current?.click()} />
      <Field label="Or paste the table" value={text} onChange={setText} multiline />
      {typeof read === 'string' && (
        <Words as="body" colour={palette.breachT}>
          {read}
        </Words>
      )}
      <Refusal of={add} />
      {add.data && (
        <View role="status">
          <Words as="rowTitle">{`${add.data.added} added, ${add.data.changed} updated, ${add.data.refused.length} refused`}</Words>
          {add.data.refused.slice(0, 50).map(({ line, reason }) => (
            <Words key={line} as="second" colour={palette.breachT}>
              {`Line ${line}: ${reason}`}
            </Words>
          ))}
        </View>
      )}
      <Button
        variant="primary"
        label={Array.isArray(read) ? `Add ${read.length} assets` : 'Add assets'}
        disabled={!Array.isArray(read) || add.isPending}
        onPress={() => Array.isArray(read) && add.mutate(read)}
      />
    </>
  );
}
