import { useMemo, type ComponentType } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  automaticFootnote,
  automaticTitle,
  windowWords,
  type Readout,
  type ReadoutForm,
} from '@vivid-beacon/core';
import { useAssetsById } from '../api/catalogue';
import { useFollowed } from '../boards/useFollowed';
import { useShown } from '../boards/useParts';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import { FigureReadout } from './FigureReadout';
import { GaugeReadout } from './GaugeReadout';
import { LampReadout } from './LampReadout';
import { NoteReadout } from './NoteReadout';
import { ReadoutGuard } from './ReadoutGuard';
import type { ReadoutProps } from './readoutProps';
import { RingReadout } from './RingReadout';
import { StraightReadout } from './StraightReadout';
import { TankReadout } from './TankReadout';
import { TrendReadout } from './TrendReadout';

const FORMS: Readonly<Record<ReadoutForm, ComponentType<ReadoutProps>>> = {
  gauge: GaugeReadout,
  straight: StraightReadout,
  tank: TankReadout,
  lamp: LampReadout,
  figure: FigureReadout,
  trend: TrendReadout,
  ring: RingReadout,
  note: NoteReadout,
};

/** One readout with its title, the window it keeps for itself, and the footnote that states its subset. */
export function ReadoutView({ readout: given }: { readonly readout: Readout }) {
  const [readout] = useFollowed(useMemo(() => [given], [given]));
  const palette = usePalette();
  const { title, footnote, follows } = useReadoutWords(readout);
  const Form = FORMS[readout.form];
  const bare = readout.form === 'note' && readout.title === null;
  return (
    <View style={styles.readout} role="region" aria-label={title}>
      {!bare && (
        <View style={styles.head}>
          <View style={styles.title}>
            <Words as="readoutTitle" heading={2}>
              {title}
            </Words>
          </View>
          {readout.window && (
            <Words as="caption" colour={palette.ink2}>
              {windowWords(readout.window).replace(/^the /, '')}
            </Words>
          )}
        </View>
      )}
      {follows && (
        <Words as="caption" colour={palette.sea}>
          follows the focus
        </Words>
      )}
      <ReadoutGuard of={readout}>
        <Form readout={readout} title={title} />
      </ReadoutGuard>
      {footnote && (
        <Words as="caption" colour={palette.ink2}>
          {footnote}
        </Words>
      )}
    </View>
  );
}

/** A title until its metrics have come: as high as a name, and nothing to read. */
const NAMELESS = '\u00a0';

/** Title and footnote as written, or made from the choices. */
export function useReadoutWords(readout: Readout): {
  readonly title: string;
  readonly footnote: string | null;
  readonly follows: boolean;
} {
  const { shown, metrics, whole } = useShown(readout);
  const { byId: assets } = useAssetsById(readout.scope?.assetIds ?? []);
  return useMemo(() => {
    const automatic = (): string =>
      whole ? automaticTitle(shown.readout, (id) => metrics.get(id)) : NAMELESS;
    return {
      title: shown.readout.title ?? automatic(),
      footnote: readout.footnote ?? automaticFootnote(readout, (id) => assets.get(id)?.name),
      follows: shown.follows,
    };
  }, [readout, shown, metrics, whole, assets]);
}

const styles = StyleSheet.create({
  readout: { paddingVertical: 12, paddingHorizontal: 12, gap: 4, minWidth: 0, flex: 1 },
  head: { flexDirection: 'row', alignItems: 'baseline', gap: 8, flexWrap: 'wrap' },
  title: { flexGrow: 1, flexShrink: 1, minWidth: 0 },
});
