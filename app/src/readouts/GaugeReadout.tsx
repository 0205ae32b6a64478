import { useMemo } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { formatValue, type DataOf } from '@vivid-beacon/core';
import {
  gaugeOptions,
  MAX_GAUGE_WIDTH,
  markOf,
  MIN_MULTIPLE_WIDTH,
  stateWords,
  type ReadoutValue,
} from '@vivid-beacon/core/src/boards';
import { gaugeScene, MIN_GAUGE_WIDTH } from '@vivid-beacon/core/src/pictures';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { SceneView } from '../charts/SceneView';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { DrawProps } from './drawProps';
import { LampReadout } from './LampReadout';
import { StateLine } from './StateLine';

type GaugeProps = DrawProps<DataOf<'gauge'>>;

/** A round gauge, one for each group, or several values on one; each number opens how it was made. */
export function GaugeReadout(props: GaugeProps) {
  const { data, width } = props;
  if (width > 0 && width < MIN_GAUGE_WIDTH) return <LampReadout {...props} />;
  return (
    <View style={styles.box}>
      {data.readout.groupBy ? <Multiples {...props} /> : <Together {...props} />}
    </View>
  );
}

/** One gauge; the first value has the beam, others have marks with letters. */
function Together({ data, width, title, onOpen }: GaugeProps) {
  const { values, readout, decimals } = data;
  const [first] = values;
  return (
    <>
      <GaugeButton
        data={data}
        part={first}
        name={title}
        width={Math.min(width, MAX_GAUGE_WIDTH)}
        onOpen={onOpen}
      />
      <StateLine part={first} band={readout.band} decimals={decimals} />
      {values.length > 1 && (
        <View style={styles.legend}>
          {values.map((part, i) => (
            <Pressable key={part.key} role="button" onPress={() => onOpen(part)} style={styles.entry}>
              <Words as="second">
                {`${markOf(i)}  ${part.name} ${formatValue(part.value, part.unit, decimals)}`}
              </Words>
            </Pressable>
          ))}
        </View>
      )}
    </>
  );
}

/** A gauge for each group, all on one scale. */
function Multiples({ data, width, onOpen }: GaugeProps) {
  const palette = usePalette();
  const { focus } = useBoardFilters();
  const { values, readout, decimals } = data;
  const columns = Math.max(1, Math.min(values.length, Math.floor(width / MIN_MULTIPLE_WIDTH)));
  const each = Math.floor(width / columns);
  return (
    <View style={styles.multiples}>
      {width > 0 &&
        values.map((part) => {
          const chosen = focus !== null && part.assetId === focus;
          return (
            <View
              key={part.key}
              style={[
                styles.multiple,
                { width: `${100 / columns}%` },
                chosen && { backgroundColor: palette.water, outlineWidth: 2, outlineColor: palette.sea },
              ]}
            >
              <GaugeButton
                data={data}
                part={part}
                name={part.name}
                width={Math.min(each - 12, MAX_GAUGE_WIDTH)}
                onOpen={onOpen}
              />
              <Words as="rowTitle">{part.name}</Words>
              <StateLine part={part} band={readout.band} decimals={decimals} />
            </View>
          );
        })}
    </View>
  );
}

interface GaugeButtonProps extends Pick<GaugeProps, 'data' | 'width' | 'onOpen'> {
  readonly part: ReadoutValue;
  readonly name: string;
}

function GaugeButton({ data, part, name, width, onOpen }: GaugeButtonProps) {
  const { readout, decimals } = data;
  const scene = useMemo(
    () => (width > 0 ? gaugeScene(gaugeOptions(data, part), width) : null),
    [data, part, width],
  );
  return (
    <View style={styles.gauge}>
      <Pressable
        role="button"
        aria-label={`${name}: ${formatValue(part.value, part.unit, decimals)}, ${stateWords(part, readout.band, decimals)}. How it was made`}
        onPress={() => onOpen(part)}
      >
        {scene && <SceneView scene={scene} />}
      </Pressable>
    </View>
  );
}

const styles = StyleSheet.create({
  box: { gap: 4, alignItems: 'stretch' },
  gauge: { alignItems: 'center' },
  legend: {
    alignItems: 'center',
    flexDirection: 'row',
    flexWrap: 'wrap',
    columnGap: 14,
    justifyContent: 'center',
  },
  entry: { minHeight: 44, justifyContent: 'center' },
  multiples: { flexDirection: 'row', flexWrap: 'wrap' },
  multiple: {
    alignItems: 'center',
    paddingVertical: 6,
    outlineStyle: 'solid',
    outlineWidth: 0,
    outlineOffset: -2,
  },
});
