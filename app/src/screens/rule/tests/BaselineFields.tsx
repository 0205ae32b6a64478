import { NumberField } from '../../../components/NumberField';
import { WordRow } from '../../../components/WordRow';
import { Words } from '../../../components/Words';
import { usePalette } from '../../../theme/useTheme';
import { optionsOf, positive, type FieldsProps } from './fields';

const SIDES = optionsOf({ above: 'Above the usual', below: 'Below it', either: 'Either' });

export function BaselineFields({ test, onChange }: FieldsProps<'baseline'>) {
  const palette = usePalette();
  return (
    <>
      <WordRow
        name="Side"
        options={SIDES}
        chosen={test.side}
        onChoose={(side) => onChange({ ...test, side })}
      />
      <NumberField
        label="By more than"
        unit="σ"
        value={test.limit}
        error={positive(test.limit)}
        onChange={(limit) => onChange({ ...test, limit })}
      />
      <Words as="second" colour={palette.ink2}>
        The usual is the mean of each hour of the week over the eight weeks before it is put in force.
      </Words>
    </>
  );
}
