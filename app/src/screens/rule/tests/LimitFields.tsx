import { NumberField } from '../../../components/NumberField';
import { WordRow } from '../../../components/WordRow';
import { optionsOf, type FieldsProps } from './fields';

const SIDES = optionsOf({
  above: 'Above',
  atOrAbove: 'At or above',
  below: 'Below',
  atOrBelow: 'At or below',
});

export function LimitFields({ test, unit, onChange }: FieldsProps<'limit'>) {
  return (
    <>
      <WordRow
        name="Side"
        options={SIDES}
        chosen={test.side}
        onChoose={(side) => onChange({ ...test, side })}
      />
      <NumberField
        label="Limit"
        unit={unit}
        value={test.limit}
        onChange={(limit) => onChange({ ...test, limit })}
      />
    </>
  );
}
