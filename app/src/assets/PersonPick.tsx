import { itemsOf } from '../api/pages';
import { usePeoplePages, type PeopleAsk } from '../api/people';
import { useSearch } from '../components/SearchField';
import { SearchedPick } from './SearchedPick';

interface PersonPickProps {
  /** Whom to offer; default: everybody who shares a plant with the signed-in person. */
  readonly ask?: PeopleAsk;
  readonly chosen: string | null;
  readonly onChoose: (id: string, name: string) => void;
  /** Not offered, by id. */
  readonly without?: readonly string[];
}

const ANYBODY: PeopleAsk = {};

/** People by name, searched on the server, to choose one from. */
export function PersonPick({ ask = ANYBODY, chosen, onChoose, without = [] }: PersonPickProps) {
  const search = useSearch();
  const found = usePeoplePages(ask, search.settled);
  const people = itemsOf(found.data).filter(({ id }) => !without.includes(id));
  return (
    <SearchedPick
      name="Person"
      maxHeight={240}
      chosen={chosen}
      options={people.map(({ id, name, role }) => ({ value: id, label: name, detail: role }))}
      found={found}
      search={search}
      onChoose={(id) => onChoose(id, people.find((each) => each.id === id)!.name)}
    />
  );
}
