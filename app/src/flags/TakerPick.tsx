import type { Person } from '@vivid-beacon/core';
import { usePeople } from '../api/queries';
import { QueryResult } from '../components/QueryResult';
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
    <QueryResult query={people} reading="Loading people">
      {(rows) => (
        <PickList
          name="Person"
          maxHeight={240}
          options={takers(rows).filter(({ value }) => value !== without)}
          chosen={chosen}
          onChoose={onChoose}
        />
      )}
    </QueryResult>
  );
}

function takers(people: readonly Person[]) {
  return people
    .filter(({ role }) => role !== 'viewer')
    .map(({ id, name, role }) => ({ value: id, label: name, detail: role }));
}
