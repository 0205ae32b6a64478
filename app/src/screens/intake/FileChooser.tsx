import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../components/Button';
import { FileIcon } from '../../components/icons';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

/** Chooses a file by button or by drag. */
export function FileChooser({
  onChoose,
  another,
}: {
  readonly onChoose: (file: File) => void;
  readonly another: boolean;
}) {
  const palette = usePalette();
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  return (
    <View
      {...({
        onDragOver: (event: DragEvent) => {
          event.preventDefault();
          setOver(true);
        },
        onDragLeave: () => setOver(false),
        onDrop: (event: DragEvent) => {
          event.preventDefault();
          setOver(false);
          const file = event.dataTransfer?.files[0];
          if (file) onChoose(file);
        },
      } as object)}
      style={[
        styles.place,
        another && styles.small,
        {
          borderColor: over ? palette.sea : palette.line2,
          backgroundColor: over ? palette.water : palette.well,
        },
      ]}
    >
      <input
        ref={input}
        type="file"
        accept=".csv,.tsv,.txt,text/csv,text/plain,text/tab-separated-values"
        aria-label="File to bring in"
        style={{ display: 'none' }}
        onChange={(event) => {
          const file = event.currentTarget.files?.[0];
          if (file) onChoose(file);
          event.currentTarget.value = '';
        }}
      />
      {!another && (
        <Words as="body" colour={palette.ink2}>
          A text file with times and numbers: comma, semicolon or tab between columns. Up to 100 MB.
        </Words>
      )}
      <Button
        label={another ? 'Choose another file' : 'Choose a file'}
        look={another ? 'quiet' : 'main'}
        icon={<FileIcon size={20} color={another ? palette.ink : palette.btnT} strokeWidth={1.75} />}
        onPress={() => input.current?.click()}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  place: {
    borderWidth: 1,
    borderStyle: 'dashed',
    borderRadius: 10,
    padding: 20,
    gap: 12,
    alignItems: 'flex-start',
    marginVertical: 8,
  },
  small: { padding: 10 },
});
