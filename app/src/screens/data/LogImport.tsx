import type { ListAnswer } from '@vivid-beacon/core';
import { useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import { decodeText, TIME_FORMAT_WORDS, type TimeFormat } from '@vivid-beacon/core/src/intakeFiles';
import { useAssetsNamed } from '../../api/catalogue';
import { useImportJobs, useImportStops } from '../../api/dataChanges';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { assetNamesOf, readJobs, readStops, timeFormatsOf, type LogRefusal } from './logFile';

const NEEDS = {
  stops:
    'A table with the columns asset, start, end, reason and, if there are, category, note, key. Without an end a stop is still open.',
  jobs: 'A table with one row for each change of status: asset, number, at, status and, if there are, category, customer, owner.',
} as const;

/** Brings a stop log or job log in from a file or from the clipboard. */
export function LogImport({ log }: { readonly log: 'stops' | 'jobs' }) {
  const palette = usePalette();
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState<TimeFormat | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const stops = useImportStops();
  const jobs = useImportJobs();
  const formats = text.trim() === '' ? [] : timeFormatsOf(text, log);
  const mustAsk = formats.length > 1 && chosen === null;
  const format = chosen ?? formats[0] ?? 'iso';
  const names = useMemo(() => (text.trim() === '' ? [] : assetNamesOf(text)), [text]);
  const found = useAssetsNamed(names);
  const assets = names.length === 0 ? [] : found.isPlaceholderData ? undefined : found.data;
  const read =
    text.trim() === '' || mustAsk || !assets
      ? null
      : log === 'stops'
        ? readStops(text, assets, format)
        : readJobs(text, assets, format);
  const file = typeof read === 'string' || read === null ? null : read;
  const answer: ListAnswer | undefined = stops.data ?? jobs.data;
  const failed = stops.error ?? jobs.error ?? found.error;
  const refused: LogRefusal[] = [
    ...(file?.refused ?? []),
    ...(answer?.refused ?? []).map(({ index, reason }) => ({
      line: file?.lines[index] ?? index + 2,
      reason,
    })),
  ];
  return (
    <>
      <Words as="body" colour={palette.ink2}>
        {NEEDS[log]}
      </Words>
      <input
        ref={input}
        type="file"
        accept=".csv,.tsv,.txt,text/*"
        aria-label="File with the log"
        style={{ display: 'none' }}
        onChange={async (event) => {
          const picked = event.currentTarget.files?.[0];
          if (picked) setText(decodeText(new Uint8Array(await picked.arrayBuffer())).text);
        }}
      />
      <Button variant="quiet" label="Choose a file" onPress={() => input.current?.click()} />
      <Field label="Or paste the table" value={text} onChange={setText} multiline />
      {formats.length > 1 && (
        <>
          <Words as="second" colour={mustAsk ? palette.cautionT : palette.ink2}>
            How times are written: the file itself cannot tell, please choose
          </Words>
          <WordRow
            name="How times are written"
            options={formats.map((value) => ({ value, label: TIME_FORMAT_WORDS[value] }))}
            chosen={chosen}
            onChoose={setChosen}
          />
        </>
      )}
      {typeof read === 'string' && (
        <Words as="body" colour={palette.breachT}>
          {read}
        </Words>
      )}
      {failed && (
        <Words as="body" colour={palette.breachT}>
          {failed.message}
        </Words>
      )}
      {answer && (
        <View role="status">
          <Words as="rowTitle">{`${answer.added} added, ${answer.changed} updated, ${refused.length} refused`}</Words>
        </View>
      )}
      {refused.slice(0, 50).map(({ line, reason }) => (
        <Words key={line} as="second" colour={palette.breachT}>
          {`Line ${line}: ${reason}`}
        </Words>
      ))}
      <Button
        variant="primary"
        label={file ? `Import ${file.entries.length} ${log}` : `Import ${log}`}
        disabled={!file || file.entries.length === 0 || stops.isPending || jobs.isPending}
        onPress={() => {
          if (!file) return;
          if (log === 'stops') stops.mutate(file.entries as Parameters<typeof stops.mutate>[0]);
          else jobs.mutate(file.entries as Parameters<typeof jobs.mutate>[0]);
        }}
      />
    </>
  );
}
