import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../components/Button';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { saveText } from '../saveText';

interface DefinitionsOutProps {
  /** "Rules", "Indicators". */
  readonly what: string;
  /** Writes the file: of all that the list shows. */
  readonly write: () => Promise<string>;
  /** "rules.json". */
  readonly file: string;
  /** Whether the person may bring some in. */
  readonly build: boolean;
}

/** Hands a list out as a file, and leads to where such files are brought in. */
export function DefinitionsOut({ what, write, file, build }: DefinitionsOutProps) {
  const palette = usePalette();
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const save = async (): Promise<void> => {
    setBusy(true);
    try {
      saveText(file, await write());
      setWrong(null);
    } catch (error) {
      setWrong((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <>
      <View style={styles.buttons}>
        <Button variant="quiet" label={`${what} as a file`} disabled={busy} onPress={() => void save()} />
        {build && <Button variant="quiet" label="From a file" onPress={() => router.push('/from-file')} />}
      </View>
      {wrong && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>{`The file could not be written. ${wrong}`}</Words>
        </View>
      )}
    </>
  );
}

const styles = StyleSheet.create({
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingTop: 4 },
});
