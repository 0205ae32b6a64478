import { StyleSheet, View } from 'react-native';
import {
  COMPARISONS,
  startOfAttribute,
  type Comparison,
  type Readout,
  type ReadoutParts,
} from '@vivid-beacon/core';
import { useAttributes } from '../../api/catalogue';
import { NumberField } from '../../components/NumberField';
import { PickList } from '../../components/PickList';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface ComparePanelProps {
  readonly readout: Readout;
  readonly onChange: (parts: Pick<ReadoutParts, 'compare' | 'normalise' | 'align'>) => void;
}

export const COMPARE_WORDS: Readonly<Record<Comparison, string>> = {
  before: 'The window before',
  lastYear: 'The same last year',
  none: 'No reference',
};

const DEFAULT_DAYS = 60;

/** What values are compared with; of a trend also in what proportion, and from what day on. */
export function ComparePanel({ readout, onChange }: ComparePanelProps) {
  const palette = usePalette();
  const { compare, groupBy } = readout;
  const { normalise, align } = 'normalise' in readout ? readout : { normalise: undefined, align: undefined };
  const attributes = useAttributes().data ?? [];
  const dated = attributes
    .filter(({ values }) => values.some((value) => startOfAttribute(value, 'UTC') !== null))
    .map(({ name }) => name);
  return (
    <View style={styles.panel}>
      <PickList
        name="Reference"
        searchFrom={99}
        options={COMPARISONS.map((value) => ({ value, label: COMPARE_WORDS[value] }))}
        chosen={compare}
        onChoose={(value) => onChange({ compare: value })}
      />
      {normalise !== undefined && (
        <>
          <Words as="sectionHead" heading={3}>
            In proportion
          </Words>
          <PickList
            name="In proportion"
            searchFrom={12}
            options={[
              { value: 'none', label: 'Values as they are' },
              { value: 'first', label: 'In percent of the first value' },
            ]}
            chosen={normalise === null ? 'none' : 'first'}
            onChoose={(value) => onChange({ normalise: value === 'first' ? { by: 'first' } : null })}
          />
        </>
      )}
      {align !== undefined && groupBy === null && (
        <>
          <Words as="sectionHead" heading={3}>
            Laid over one another
          </Words>
          <PickList
            name="Laid over one another"
            searchFrom={12}
            options={[
              { value: 'date', label: 'By date' },
              ...dated.map((name) => ({ value: `since ${name}`, label: `By days since ${name}` })),
            ]}
            chosen={align === null ? 'date' : `since ${align.attribute}`}
            onChoose={(value) =>
              onChange({
                align:
                  value === 'date' ? null : { attribute: value.slice(6), days: align?.days ?? DEFAULT_DAYS },
              })
            }
          />
          {align && (
            <NumberField
              label="Days from then on"
              value={align.days}
              error={
                Number.isInteger(align.days) && align.days >= 1 && align.days <= 3660
                  ? undefined
                  : 'a whole number from 1 to 3660'
              }
              onChange={(days) => onChange({ align: { ...align, days } })}
            />
          )}
          {dated.length === 0 && (
            <Words as="second" colour={palette.ink2}>
              To lay assets over one another from an event on, give them an attribute with its date, such as
              2026-03-02.
            </Words>
          )}
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 10 } });
