import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  MOST_DRAWN,
  RANKING_HITS,
  rankingScene,
  type RankingData,
  type ReadoutValue,
} from '@vivid-beacon/core/src/boards';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { PointedScene } from '../charts/PointedScene';
import { Field } from '../components/Field';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { DrawProps } from './drawProps';

/** From so many rows on one can be searched for. */
const FIND_FROM = 12;

/** Rows by rank: a name focuses its asset, a number opens how it was made, the head of a column sorts by it. */
export function RankingReadout({ data, title, width, onOpen, onTry }: DrawProps<RankingData>) {
  const palette = usePalette();
  const { focus, onFocus } = useBoardFilters();
  const [find, setFind] = useState('');
  const scene = useMemo(
    () => (width > 0 ? rankingScene(data, { width, focus, find }) : null),
    [data, width, focus, find],
  );
  if (!scene) return null;
  const press = (key: string): void => {
    const { sort, row, value } = RANKING_HITS;
    if (key.startsWith(sort)) onTry(sortedBy(data, Number(key.slice(sort.length))));
    else if (key.startsWith(row)) {
      const found = data.rows.find((each) => each.key === key.slice(row.length));
      if (found?.assetId) onFocus(found.assetId);
    } else {
      const found = valuesOf(data).find((each) => each.key === key.slice(value.length));
      if (found) onOpen(found);
    }
  };
  return (
    <View style={styles.ranking}>
      {data.rows.length >= FIND_FROM && (
        <Field label="Find by name" hideLabel placeholder="Find by name" value={find} onChange={setFind} />
      )}
      <PointedScene scene={scene} name={title} parts onPress={press} />
      {find === '' && data.rows.length > MOST_DRAWN && (
        <Words as="second" colour={palette.ink2}>
          {`The first ${MOST_DRAWN} of ${data.rows.length} rows. Find one by its name, or set how many have a row of their own.`}
        </Words>
      )}
    </View>
  );
}

/** Another column, or the same one the other way round. */
function sortedBy({ by, readout }: RankingData, column: number): Pick<typeof readout, 'by' | 'order'> {
  const reverse = by === column && readout.order !== 'smallest';
  return { by: column, order: reverse ? 'smallest' : 'largest' };
}

const valuesOf = ({ rows, others }: RankingData): ReadoutValue[] => [
  ...rows.flatMap(({ values }) => values),
  ...(others?.values ?? []).filter((each) => each !== null),
];

const styles = StyleSheet.create({ ranking: { gap: 8 } });
