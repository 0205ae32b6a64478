import { StyleSheet, View } from 'react-native';
import { exactNumber, fieldText, readTypedNumber, understoodAs } from '@vivid-beacon/core';
import { usePalette } from '../theme/useTheme';
import { Button } from './Button';
import { Words } from './Words';

interface UnderstoodAsProps {
  readonly text: string;
  readonly unit?: string;
  /** Takes the other reading, as a text that can only be read so. */
  readonly onTake: (text: string) => void;
}

/** What a typed number was understood as, while it is typed; where both signs are possible, the other one is a tap away. */
export function UnderstoodAs({ text, unit, onTake }: UnderstoodAsProps) {
  const palette = usePalette();
  const words = understoodAs(text);
  if (words === null) return null;
  const other = readTypedNumber(text)?.other ?? null;
  return (
    <View role="status" style={styles.row}>
      <Words as="second" colour={palette.ink2}>
        {unit ? `${words} ${unit}` : words}
      </Words>
      {other !== null && (
        <Button
          variant="quiet"
          label={`Take ${exactNumber(other)}`}
          onPress={() => onTake(fieldText(other))}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 10 },
});
