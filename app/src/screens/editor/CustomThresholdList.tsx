import { Fragment } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  LEVEL_WORDS,
  MAX_THRESHOLDS,
  VALUE_LEVELS,
  withThresholdAdded,
  withThresholdAt,
  withThresholdRemoved,
  withSectionLevel,
  type CustomThresholds,
} from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { IconButton } from '../../components/IconButton';
import { Lamp } from '../../components/Lamp';
import { NumberField } from '../../components/NumberField';
import { WordRow } from '../../components/WordRow';
import { RemoveIcon } from '../../components/icons';

interface CustomThresholdListProps {
  readonly own: CustomThresholds;
  readonly unit: string;
  /** Ends of the range shown: a new threshold is placed in the middle of the widest section. */
  readonly ends: readonly [number, number];
  readonly problem: { readonly path?: string; readonly message: string } | null;
  readonly onChange: (own: CustomThresholds) => void;
}

const LEVELS = VALUE_LEVELS.map((value) => ({ value, label: LEVEL_WORDS[value] }));

/** Custom thresholds from lowest to highest: a level per section, a value per threshold. */
export function CustomThresholdList({ own, unit, ends, problem, onChange }: CustomThresholdListProps) {
  const { cuts, levels } = own;
  const partName = (i: number): string =>
    i === 0
      ? 'Below the first threshold'
      : i === cuts.length
        ? 'Above the last threshold'
        : `Between thresholds ${i} and ${i + 1}`;
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
              onChoose={(next) => onChange(withSectionLevel(own, i, next))}
            />
          </View>
          {i < cuts.length && (
            <View style={styles.cut}>
              <View style={styles.field}>
                <NumberField
                  label={`Threshold ${i + 1}`}
                  unit={unit}
                  value={cuts[i]}
                  error={problem?.path === `band.cut${i}` ? problem.message : undefined}
                  onChange={(value) => onChange(withThresholdAt(own, i, value))}
                />
              </View>
              <IconButton
                icon={RemoveIcon}
                name={`Remove threshold ${i + 1}`}
                disabled={cuts.length === 1}
                onPress={() => onChange(withThresholdRemoved(own, i))}
              />
            </View>
          )}
        </Fragment>
      ))}
      {cuts.length < MAX_THRESHOLDS && (
        <Button
          label="Add a threshold"
          variant="quiet"
          onPress={() => onChange(withThresholdAdded(own, ...ends))}
        />
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
