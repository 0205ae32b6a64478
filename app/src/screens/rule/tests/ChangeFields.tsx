import { LengthField } from '../../../components/LengthField';
import { NumberField } from '../../../components/NumberField';
import { WordRow } from '../../../components/WordRow';
import { optionsOf, positive, type FieldsProps } from './fields';

const SIDES = optionsOf({ rise: 'Rises', fall: 'Falls', either: 'Either' });

export function ChangeFields({ test, unit, onChange }: FieldsProps<'change'>) {
  return (
    <>
      <WordRow
        name="Direction"
        options={SIDES}
        chosen={test.side}
        onChoose={(side) => onChange({ ...test, side })}
      />
      <NumberField
        label="By more than"
        unit={test.inPercent ? '%' : unit}
        value={test.limit}
        error={positive(test.limit)}
        onChange={(limit) => onChange({ ...test, limit })}
      />
      <WordRow
        name="Counted in"
        options={optionsOf({ unit: unit || 'units', percent: 'percent' })}
        chosen={test.inPercent ? 'percent' : 'unit'}
        onChoose={(value) => onChange({ ...test, inPercent: value === 'percent' })}
      />
      <LengthField label="Within" value={test.overMs} onChange={(overMs) => onChange({ ...test, overMs })} />
    </>
  );
}
