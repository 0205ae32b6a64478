import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatNumber, type ReadoutParts } from '@vivid-beacon/core';
import { rankingOf, scatterScene, type ScatterData, type ScatterPoint } from '@vivid-beacon/core/src/boards';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { PointedScene } from '../charts/PointedScene';
import { Button } from '../components/Button';
import { NumberButton } from '../components/NumberButton';
import { Words } from '../components/Words';
import type { DrawProps } from './drawProps';
import { RankingReadout } from './RankingReadout';

/** From this width on the list stands beside the plot. */
const BESIDE_FROM = 760;

/** Points that a tap names and focuses; the same numbers as a list beside them. */
export function ScatterReadout(props: DrawProps<ScatterData>) {
  const { data, title, width, onOpen } = props;
  const { focus, onFocus } = useBoardFilters();
  const [chosen, setChosen] = useState<string | null>(null);
  const [asList, setAsList] = useState(false);
  const beside = width >= BESIDE_FROM;
  const room = beside ? Math.round(width * 0.6) : width;
  const scene = useMemo(
    () => (width > 0 ? scatterScene(data, { width: room, height: null, focus }) : null),
    [data, width, room, focus],
  );
  const [sorted, setSorted] = useState<Pick<ReadoutParts, 'by' | 'order'>>({});
  const list = useMemo(() => rankingOf(data, sorted), [data, sorted]);
  if (!scene) return null;
  const point =
    data.points.find(({ key }) => key === chosen) ??
    data.points.find(({ assetId }) => focus !== null && assetId === focus);
  const press = (key: string): void => {
    setChosen(key);
    const { assetId } = data.points.find((each) => each.key === key)!;
    if (assetId !== null && assetId !== focus) onFocus(assetId);
  };
  return (
    <View style={beside && styles.beside}>
      <View>
        <PointedScene scene={scene} name={title} parts onPress={press} />
        {point && <PointNumbers data={data} point={point} onOpen={onOpen} />}
      </View>
      {beside || asList ? (
        <View style={styles.list}>
          <RankingReadout
            {...props}
            data={list}
            onTry={setSorted}
            width={beside ? width - room - GAP : width}
          />
        </View>
      ) : null}
      {!beside && (
        <View style={styles.toggle}>
          <Button
            variant="quiet"
            label={asList ? 'Hide the list' : 'Show them as a list'}
            onPress={() => setAsList(!asList)}
          />
        </View>
      )}
    </View>
  );
}

/** The numbers of the chosen point; each opens how it was made. */
function PointNumbers({
  data: { columns },
  point,
  onOpen,
}: Pick<DrawProps<ScatterData>, 'data' | 'onOpen'> & { readonly point: ScatterPoint }) {
  return (
    <View style={styles.numbers}>
      <Words as="rowTitle">{point.name}</Words>
      {columns.map(({ name, unit, decimals }, i) => {
        const value = point.values[i];
        return (
          <View key={i} style={styles.number}>
            <Words as="second">{name}</Words>
            <NumberButton
              text={value.value === null ? '–' : formatNumber(value.value, decimals)}
              unit={unit}
              name={`${point.name}, ${name}. How it was made`}
              onPress={() => onOpen(value)}
            />
          </View>
        );
      })}
    </View>
  );
}

const GAP = 24;

const styles = StyleSheet.create({
  beside: { flexDirection: 'row', gap: GAP, alignItems: 'flex-start' },
  list: { flexGrow: 1, flexShrink: 1, minWidth: 0 },
  numbers: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 16, minHeight: 44 },
  toggle: { alignItems: 'flex-start' },
  number: { flexDirection: 'row', alignItems: 'center', gap: 6 },
});
