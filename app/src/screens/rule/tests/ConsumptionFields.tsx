import { CONSUMPTION_PERIODS } from '@vivid-beacon/core';
import { NumberField } from '../../../components/NumberField';
import { WordRow } from '../../../components/WordRow';
import { Words } from '../../../components/Words';
import { usePalette } from '../../../theme/useTheme';
import { optionsOf, positive, type FieldsProps } from './fields';

const PERIODS = CONSUMPTION_PERIODS.map((value) => ({ value, label: `in the ${value}` }));
const WHEN = optionsOf({ reached: 'once it is used', pace: 'as soon as the pace predicts it' });

export function ConsumptionFields({ test, unit, onChange }: FieldsProps<'consumption'>) {
  const palette = usePalette();
  return (
    <>
      <NumberField
        label="More than"
        unit={unit}
        value={test.limit}
        error={positive(test.limit)}
        onChange={(limit) => onChange({ ...test, limit })}
      />
      <WordRow
        name="Period"
        options={PERIODS}
        chosen={test.per}
        onChoose={(per) => onChange({ ...test, per })}
      />
      <WordRow
        name="When"
        options={WHEN}
        chosen={test.pace ? 'pace' : 'reached'}
        onChoose={(value) => onChange({ ...test, pace: value === 'pace' })}
      />
      {test.pace && (
        <Words as="second" colour={palette.ink2}>
          Evaluated once a tenth of the period has passed: the amount used so far divided by the share of the
          period that has passed.
        </Words>
      )}
    </>
  );
}
