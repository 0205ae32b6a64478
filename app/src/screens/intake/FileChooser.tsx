import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../components/Button';
import { FileIcon } from '../../components/icons';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

/** Chooses files by button or by drag. */
export function FileChooser({
  onChoose,
  another,
}: {
  readonly onChoose: (files: readonly File[]) => void;
  readonly another: boolean;
}) {
  const palette = usePalette();
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  return (
    // React Native's View passes no drag events on.
    <div
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const files = [...event.dataTransfer.files];
        if (files.length > 0) onChoose(files);
      }}
    >
      <View
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
          multiple
          accept=".csv,.tsv,.txt,.log,.dat,.xlsx,.xlsb,.xls,.ods,.json,.ndjson,.jsonl,.prom,.om,.gz,text/*"
          aria-label="File to import"
          style={{ display: 'none' }}
          onChange={(event) => {
            const files = [...(event.currentTarget.files ?? [])];
            if (files.length > 0) onChoose(files);
            event.currentTarget.value = '';
          }}
        />
        {!another && (
          <Words as="body" colour={palette.ink2}>
            Files with times and numbers: tables as text or spreadsheet (.xlsx, .xls, .ods), JSON, lines of
            JSON, OpenMetrics text, packed with gzip or not. Several at once; drop them here or choose them.
          </Words>
        )}
        <Button
          label={another ? 'Choose other files' : 'Choose files'}
          variant={another ? 'quiet' : 'primary'}
          icon={<FileIcon size={20} color={another ? palette.ink : palette.btnT} strokeWidth={1.75} />}
          onPress={() => input.current?.click()}
        />
      </View>
    </div>
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
