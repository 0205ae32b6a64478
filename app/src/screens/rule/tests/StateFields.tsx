import { NumberField } from '../../../components/NumberField';
import { WordRow } from '../../../components/WordRow';
import { Words } from '../../../components/Words';
import { usePalette } from '../../../theme/useTheme';
import { optionsOf, type FieldsProps } from './fields';

const WHILE = optionsOf({ is: 'it is this one', not: 'it is another' });

export function StateFields({ test, onChange }: FieldsProps<'state'>) {
  const palette = usePalette();
  return (
    <>
      <NumberField label="State" value={test.code} onChange={(code) => onChange({ ...test, code })} />
      <WordRow
        name="While"
        options={WHILE}
        chosen={test.is ? 'is' : 'not'}
        onChoose={(value) => onChange({ ...test, is: value === 'is' })}
      />
      <Words as="second" colour={palette.ink2}>
        1 is running, 0 is stopped; other codes are your own.
      </Words>
    </>
  );
}
