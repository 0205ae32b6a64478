import { StyleSheet, View } from 'react-native';
import { IconButton } from '../components/IconButton';
import { DownIcon, EditIcon, RemoveIcon, UpIcon } from '../components/icons';
import { usePalette } from '../theme/useTheme';

interface ReadoutToolsProps {
  readonly title: string;
  readonly onEdit: () => void;
  readonly onMove: (step: -1 | 1) => void;
  readonly onRemove: () => void;
}

/** Under each readout while a board is arranged. */
export function ReadoutTools({ title, onEdit, onMove, onRemove }: ReadoutToolsProps) {
  const palette = usePalette();
  return (
    <View
      role="toolbar"
      aria-label={`Change ${title}`}
      style={[styles.bar, { backgroundColor: palette.well }]}
    >
      <IconButton icon={EditIcon} name={`Edit ${title}`} onPress={onEdit} />
      <IconButton icon={UpIcon} name={`Move ${title} towards the start`} onPress={() => onMove(-1)} />
      <IconButton icon={DownIcon} name={`Move ${title} towards the end`} onPress={() => onMove(1)} />
      <IconButton icon={RemoveIcon} name={`Remove ${title}`} onPress={onRemove} />
    </View>
  );
}

const styles = StyleSheet.create({
  bar: { flexDirection: 'row', justifyContent: 'center', flexWrap: 'wrap' },
});
