import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { MAX_MEASURES, type Measure, type Metric, type Readout } from '@vivid-beacon/core';
import { nameInGroups, takesAllMeasures } from '@vivid-beacon/core/src/boards';
import { IconButton } from '../../components/IconButton';
import { CloseIcon } from '../../components/icons';
import { PickList } from '../../components/PickList';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { MetricPick } from '../../assets/MetricPick';
import { PerPanel } from './PerPanel';
import { summaryOptions } from './summaryOptions';

interface MorePanelProps {
  readonly readout: Readout;
  readonly metrics: readonly Metric[];
  readonly onAdd: (metric: Metric) => void;
  readonly onRemove: (at: number) => void;
  readonly onChange: (at: number, change: (measure: Measure) => Measure) => void;
}

/** Further metrics, shown with the first: each with its own summary, and on its own or per another. */
export function MorePanel({ readout, metrics, onAdd, onRemove, onChange }: MorePanelProps) {
  const palette = usePalette();
  const [open, setOpen] = useState<number | null>(null);
  const [, ...more] = readout.measures;
  // Groups may show one metric several ways: its mean and its highest.
  const taken = takesAllMeasures(readout) ? NONE : new Set(readout.measures.map(({ metricId }) => metricId));
  return (
    <View style={styles.panel}>
      {more.map((measure, i) => {
        const metric = metrics.find(({ id }) => id === measure.metricId);
        const name = nameInGroups(measure, (id) => metrics.find((each) => each.id === id));
        const title = metric ? `${name}, ${metric.assetName}` : 'a removed metric';
        const at = i + 1;
        return (
          <View key={at} style={styles.panel}>
            <Row
              title={title}
              second={metric?.plantName}
              onPress={() => setOpen(open === at ? null : at)}
              right={
                <IconButton
                  icon={CloseIcon}
                  name={`Remove ${title}`}
                  onPress={() => {
                    setOpen(null);
                    onRemove(at);
                  }}
                />
              }
            />
            {open === at && metric && (
              <View style={styles.own}>
                <PickList
                  name={`Summary of ${name}`}
                  searchFrom={99}
                  options={summaryOptions(metric)}
                  chosen={measure.summary}
                  onChoose={(summary) => onChange(at, (each) => ({ ...each, summary }))}
                />
                <PerPanel measure={measure} onChange={(change) => onChange(at, change)} />
              </View>
            )}
          </View>
        );
      })}
      {readout.measures.length >= MAX_MEASURES ? (
        <Words as="second" colour={palette.ink2}>{`A readout shows at most ${MAX_MEASURES} metrics.`}</Words>
      ) : (
        <MetricPick name="Add metric" leaveOut={taken} chosen={null} onChoose={onAdd} />
      )}
    </View>
  );
}

const NONE: ReadonlySet<string> = new Set();

const styles = StyleSheet.create({
  panel: { gap: 10 },
  own: { gap: 10, paddingLeft: 16 },
});
