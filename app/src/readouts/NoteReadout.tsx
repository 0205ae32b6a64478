import { Suspense } from 'react';
import type { NoteData } from '@vivid-beacon/core/src/boards';
import { Loading } from '../components/Loading';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { DrawProps } from './drawProps';
import { LazyMarkdown } from './LazyMarkdown';

/** A note: text with headings, lists, stress and links. */
export function NoteReadout({ data: { text } }: DrawProps<NoteData>) {
  const palette = usePalette();
  if (text.trim() === '') {
    return (
      <Words as="body" colour={palette.ink2}>
        Nothing written yet.
      </Words>
    );
  }
  return (
    <Suspense fallback={<Loading what="Loading the note" />}>
      <LazyMarkdown text={text} />
    </Suspense>
  );
}
