import { LEVEL_WORDS } from '@vivid-beacon/core';
import { WordRow } from '../../../components/WordRow';
import { optionsOf, type FieldsProps } from './fields';

const FROM = optionsOf({
  breach: LEVEL_WORDS.breach,
  caution: `${LEVEL_WORDS.caution} or ${LEVEL_WORDS.breach}`,
});

/** From which level of the indicator's own target band on. */
export function LevelFields({ test, onChange }: FieldsProps<'level'>) {
  return (
    <WordRow
      name="On the level"
      options={FROM}
      chosen={test.from}
      onChoose={(from) => onChange({ ...test, from })}
    />
  );
}
