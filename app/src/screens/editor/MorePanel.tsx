import { View } from 'react-native';
import { MAX_MEASURES, type Metric, type Readout } from '@vivid-beacon/core';
import { IconButton } from '../../components/IconButton';
import { CloseIcon } from '../../components/icons';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { MetricPick } from '../../assets/MetricPick';

interface MorePanelProps {
  readonly readout: Readout;
  readonly metrics: readonly Metric[];
  readonly onAdd: (metric: Metric) => void;
  readonly onRemove: (at: number) => void;
}

/** Further metrics, shown with the first. */
export function MorePanel({ readout, metrics, onAdd, onRemove }: MorePanelProps) {
  const palette = usePalette();
  const [, ...more] = readout.measures;
  const taken = new Set(readout.measures.map(({ metricId }) => metricId));
  return (
    <View style={{ gap: 10 }}>
      {more.map(({ metricId }, i) => {
        const metric = metrics.find(({ id }) => id === metricId);
        const title = metric ? `${metric.name}, ${metric.assetName}` : 'a removed metric';
        return (
          <Row
            key={metricId}
            title={title}
            second={metric?.plantName}
            right={<IconButton icon={CloseIcon} name={`Remove ${title}`} onPress={() => onRemove(i + 1)} />}
          />
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
