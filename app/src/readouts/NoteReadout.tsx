import { Suspense } from 'react';
import { View } from 'react-native';
import { Loading } from '../components/Loading';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import { LazyMarkdown } from './LazyMarkdown';
import type { ReadoutProps } from './readoutProps';

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
      <Suspense fallback={<Loading what="Reading the note" />}>
        <LazyMarkdown text={readout.text} />
      </Suspense>
    </View>
  );
}
