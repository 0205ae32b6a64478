import { Fragment } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  LEVEL_WORDS,
  MOST_CUTS,
  VALUE_LEVELS,
  withCutAdded,
  withCutAt,
  withCutRemoved,
  withPartLevel,
  type OwnCuts,
} from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { IconButton } from '../../components/IconButton';
import { Lamp } from '../../components/Lamp';
import { NumberField } from '../../components/NumberField';
import { WordRow } from '../../components/WordRow';
import { RemoveIcon } from '../../components/icons';

interface OwnCutsListProps {
  readonly own: OwnCuts;
  readonly unit: string;
  /** Ends of what is looked at: a new cut comes into the middle of its widest part. */
  readonly ends: readonly [number, number];
  readonly problem: { readonly path?: string; readonly message: string } | null;
  readonly onChange: (own: OwnCuts) => void;
}

const LEVELS = VALUE_LEVELS.map((value) => ({ value, label: LEVEL_WORDS[value] }));

/** Cuts of one's own from the lowest part to the highest: a level for each part, a value for each cut. */
export function OwnCutsList({ own, unit, ends, problem, onChange }: OwnCutsListProps) {
  const { cuts, levels } = own;
  const partName = (i: number): string =>
    i === 0
      ? 'Below the first cut'
      : i === cuts.length
        ? 'Above the last cut'
        : `Between cuts ${i} and ${i + 1}`;
  return (
    <View style={styles.list}>
      {levels.map((level, i) => (
        <Fragment key={i}>
          <View style={styles.part}>
            <Lamp level={level} size={14} />
            <WordRow
              name={partName(i)}
              options={LEVELS}
              chosen={level}
              onChoose={(next) => onChange(withPartLevel(own, i, next))}
            />
          </View>
          {i < cuts.length && (
            <View style={styles.cut}>
              <View style={styles.field}>
                <NumberField
                  label={`Cut ${i + 1}`}
                  unit={unit}
                  value={cuts[i]}
                  error={problem?.path === `band.cut${i}` ? problem.message : undefined}
                  onChange={(value) => onChange(withCutAt(own, i, value))}
                />
              </View>
              <IconButton
                icon={RemoveIcon}
                name={`Take cut ${i + 1} away`}
                disabled={cuts.length === 1}
                onPress={() => onChange(withCutRemoved(own, i))}
              />
            </View>
          )}
        </Fragment>
      ))}
      {cuts.length < MOST_CUTS && (
        <Button label="Add a cut" look="quiet" onPress={() => onChange(withCutAdded(own, ...ends))} />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: 2 },
  part: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  cut: { flexDirection: 'row', alignItems: 'flex-end', gap: 6, paddingLeft: 22 },
  field: { flexBasis: 150, flexGrow: 1, maxWidth: 260 },
});
