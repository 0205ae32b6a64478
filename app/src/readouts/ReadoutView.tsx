import { useMemo, type ComponentType } from 'react';
import { StyleSheet, View } from 'react-native';
import { windowWords, type DataOf, type Readout, type ReadoutForm } from '@vivid-beacon/core';
import {
  type ReadData,
  automaticFootnote,
  automaticTitle,
  isInCopies,
  showsWords,
} from '@vivid-beacon/core/src/boards';
import { useAssetsById } from '../api/catalogue';
import { useFollowed } from '../boards/useFollowed';
import { useShown } from '../boards/useShown';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import { BreakdownReadout } from './BreakdownReadout';
import { FigureReadout } from './FigureReadout';
import { GaugeReadout } from './GaugeReadout';
import { GridReadout } from './GridReadout';
import { LampReadout } from './LampReadout';
import { NoteReadout } from './NoteReadout';
import { ReadoutGuard } from './ReadoutGuard';
import type { DrawProps } from './drawProps';
import { ReadoutHost } from './ReadoutHost';
import { SceneReadout } from './SceneReadout';
import { RankingReadout } from './RankingReadout';
import { RingReadout } from './RingReadout';
import { ScatterReadout } from './ScatterReadout';
import { StraightReadout } from './StraightReadout';
import { TableReadout } from './TableReadout';
import { TankReadout } from './TankReadout';
import { TrendReadout } from './TrendReadout';

/**
 * Components for forms whose text has to wrap, be selected or be pressed; other forms are drawn from their
 * scene.
 */
const DRAW: { readonly [Form in ReadoutForm]?: ComponentType<DrawProps<DataOf<Form>>> } = {
  gauge: GaugeReadout,
  straight: StraightReadout,
  tank: TankReadout,
  lamp: LampReadout,
  figure: FigureReadout,
  trend: TrendReadout,
  ranking: RankingReadout,
  breakdown: BreakdownReadout,
  scatter: ScatterReadout,
  table: TableReadout,
  grid: GridReadout,
  ring: RingReadout,
  note: NoteReadout,
};

/** One readout with its title, its own window if it has one, and its footnote. */
export function ReadoutView({ readout: given }: { readonly readout: Readout }) {
  const [readout] = useFollowed(useMemo(() => [given], [given]));
  const palette = usePalette();
  const { title, footnote, follows } = useReadoutWords(readout);
  const bare = showsWords(readout) && readout.title === null;
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
        <ReadoutHost
          // Remounted for another form, which has other requests and state.
          key={`${readout.form}${isInCopies(readout) ? ' in copies' : ''}`}
          readout={readout}
          title={title}
          draw={(DRAW[readout.form] as ComponentType<DrawProps<ReadData>> | undefined) ?? SceneReadout}
        />
      </ReadoutGuard>
      {footnote && (
        <Words as="caption" colour={palette.ink2}>
          {footnote}
        </Words>
      )}
    </View>
  );
}

/** Placeholder of a title until its metrics are loaded, of the same height. */
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
