import { useRef, useState } from 'react';
import { useRouter } from 'expo-router';
import { useQueryClient } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../components/Button';
import { Page } from '../../components/Page';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import {
  makeDefinitions,
  readDefinitions,
  type DefinitionLine,
  type LineState,
  type ReadDefinitions,
} from './takeDefinitions';

const LARGEST = 4_000_000;
const STATES: Readonly<Record<LineState, string>> = {
  ready: 'can be made',
  repeated: 'is here already, left as it is',
  refused: 'not made',
  made: 'made',
};

/** Brings rules and indicators in from a file: first what would become of each, then what did. */
export function DefinitionsInScreen() {
  const router = useRouter();
  const palette = usePalette();
  const client = useQueryClient();
  const input = useRef<HTMLInputElement>(null);
  const [read, setRead] = useState<ReadDefinitions | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState(false);
  const choose = async (chosen: File | undefined): Promise<void> => {
    setRead(null);
    setDone(false);
    setWrong(null);
    if (!chosen) return;
    setBusy(true);
    try {
      if (chosen.size > LARGEST) throw new Error('A file of rules and indicators has at most 4 MB.');
      setRead(await readDefinitions(await chosen.text()));
    } catch (error) {
      setWrong((error as Error).message);
    }
    setBusy(false);
  };
  const make = async (found: ReadDefinitions): Promise<void> => {
    setBusy(true);
    await makeDefinitions(found, (lines) => setRead({ ...found, lines }));
    await client.invalidateQueries();
    setBusy(false);
    setDone(true);
  };
  const count = (state: LineState): number => read?.lines.filter((each) => each.state === state).length ?? 0;
  return (
    <Page
      title="Rules and indicators from a file"
      under="Out of the lists of alarms and indicators, and in again here or elsewhere"
      onBack={() => router.navigate('/alarms')}
      backName="Back to alarms"
    >
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        aria-label="File of rules and indicators"
        hidden
        onChange={(event) => {
          void choose(event.currentTarget.files?.[0]);
          // The same file can be chosen again.
          event.currentTarget.value = '';
        }}
      />
      <View style={styles.buttons}>
        <Button
          label={read ? 'Choose another file' : 'Choose a file'}
          disabled={busy}
          onPress={() => input.current?.click()}
        />
        {read && !done && count('ready') > 0 && (
          <Button
            variant="primary"
            label={`Make ${count('ready')} of ${read.lines.length}`}
            disabled={busy}
            onPress={() => void make(read)}
          />
        )}
      </View>
      {busy && !read && <Words as="body">Looking for what the file names</Words>}
      {wrong && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>{`The file cannot be taken. ${wrong}`}</Words>
        </View>
      )}
      {read && (
        <>
          <View role="status">
            <Words as="body">{summaryOf(read.lines)}</Words>
          </View>
          <Lines title="Indicators" lines={read.lines.filter(({ kind }) => kind === 'indicator')} />
          <Lines title="Rules" lines={read.lines.filter(({ kind }) => kind === 'rule')} />
        </>
      )}
    </Page>
  );
}

/** "2 can be made, 1 is here already, 1 not made." */
function summaryOf(lines: readonly DefinitionLine[]): string {
  const counted = (Object.keys(STATES) as LineState[]).flatMap((state) => {
    const n = lines.filter((each) => each.state === state).length;
    return n === 0
      ? []
      : [`${n} ${n > 1 && state === 'repeated' ? 'are here already, left as they are' : STATES[state]}`];
  });
  return counted.length === 0
    ? 'There is neither a rule nor an indicator in this file.'
    : `${counted.join(', ')}.`;
}

function Lines({ title, lines }: { readonly title: string; readonly lines: readonly DefinitionLine[] }) {
  if (lines.length === 0) return null;
  return (
    <Section title={title} aside={String(lines.length)}>
      {lines.map(({ name, state, told }, i) => (
        <Row
          key={`${name} ${i}`}
          title={name}
          second={[STATES[state], ...told].join(' · ')}
          last={i === lines.length - 1}
        />
      ))}
    </Section>
  );
}

const styles = StyleSheet.create({
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 },
});
