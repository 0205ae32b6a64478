import { View } from 'react-native';
import { Markdown } from '../components/Markdown';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { ReadoutProps } from './ReadoutView';

/** A note: text with headings, lists, stress and links. */
export function NoteReadout({ readout }: ReadoutProps) {
  const palette = usePalette();
  if (readout.text.trim() === '') {
    return (
      <Words as="body" colour={palette.ink2}>
        Nothing written yet.
      </Words>
    );
  }
  return (
    <View>
      <Markdown text={readout.text} />
    </View>
  );
}
