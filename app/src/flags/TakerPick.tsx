import type { Person } from '@vivid-beacon/core';
import { usePeople } from '../api/queries';
import { Answer } from '../components/Answer';
import { PickList } from '../components/PickList';

interface TakerPickProps {
  readonly chosen: string;
  readonly onChoose: (id: string) => void;
  /** Has the flag already. */
  readonly without?: string;
}

/** People who can take a flag and close it. */
export function TakerPick({ chosen, onChoose, without }: TakerPickProps) {
  const people = usePeople();
  return (
    <Answer query={people} reading="Reading people">
      {(rows) => (
        <PickList
          name="Person"
          maxHeight={240}
          options={takers(rows).filter(({ value }) => value !== without)}
          chosen={chosen}
          onChoose={onChoose}
        />
      )}
    </Answer>
  );
}

function takers(people: readonly Person[]) {
  return people
    .filter(({ role }) => role !== 'viewer')
    .map(({ id, name, role }) => ({ value: id, label: name, detail: role }));
}
