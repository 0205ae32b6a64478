import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { automaticTitle, windowWords, type Metric, type Readout, type WindowSpec } from '@vivid-beacon/core';
import { useMetrics } from '../api/queries';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import { FigureReadout } from './FigureReadout';
import { GaugeReadout } from './GaugeReadout';
import { LampReadout } from './LampReadout';
import { TrendReadout } from './TrendReadout';

interface ReadoutViewProps {
  readonly readout: Readout;
  /** Used where the readout has no window of its own. */
  readonly boardWindow: WindowSpec;
}

/** What every form of readout gets. */
export interface ReadoutProps {
  readonly readout: Readout;
  readonly window: WindowSpec;
  readonly title: string;
}

const FORMS = { gauge: GaugeReadout, lamp: LampReadout, figure: FigureReadout, trend: TrendReadout } as const;

/** One readout with its title and the window it shows. */
export function ReadoutView({ readout, boardWindow }: ReadoutViewProps) {
  const palette = usePalette();
  const title = useTitle(readout);
  const window = readout.window ?? boardWindow;
  const Form = FORMS[readout.form];
  return (
    <View style={styles.readout} role="region" aria-label={title}>
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
      <Form readout={readout} window={window} title={title} />
    </View>
  );
}

/** The title as written, or made from the choices. */
export function useTitle(readout: Readout): string {
  const metrics = useMetrics().data;
  return useMemo(() => titleFrom(readout, metrics), [readout, metrics]);
}

function titleFrom(readout: Readout, metrics: readonly Metric[] | undefined): string {
  if (readout.title !== null) return readout.title;
  const metric = metrics?.find(({ id }) => id === readout.measure.metricId);
  const per = metrics?.find(({ id }) => id === readout.measure.per?.metricId) ?? null;
  return metric ? automaticTitle(readout.measure, metric, per) : 'Readout';
}

const styles = StyleSheet.create({
  readout: { paddingVertical: 12, paddingHorizontal: 12, gap: 4, minWidth: 0, flex: 1 },
  head: { flexDirection: 'row', alignItems: 'baseline', gap: 8, flexWrap: 'wrap' },
  title: { flexGrow: 1, flexShrink: 1, minWidth: 0 },
});
