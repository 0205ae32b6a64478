import { itemsOf } from '../api/pages';
import { useTakerPages } from '../api/queries';
import { SearchedPick } from '../assets/SearchedPick';
import { useSearch } from '../components/SearchField';

interface TakerPickProps {
  /** What the flag is about: only people who can close it there are offered. */
  readonly assetId: string;
  readonly chosen: string;
  readonly onChoose: (id: string) => void;
  /** Has the flag already. */
  readonly without?: string;
}

/** People who can take a flag and close it. */
export function TakerPick({ assetId, chosen, onChoose, without }: TakerPickProps) {
  const search = useSearch();
  const found = useTakerPages(assetId, search.settled);
  const options = itemsOf(found.data)
    .filter(({ id }) => id !== without)
    .map(({ id, name, role }) => ({ value: id, label: name, detail: role }));
  return (
    <SearchedPick
      name="Person"
      maxHeight={240}
      chosen={chosen}
      options={options}
      found={found}
      search={search.text}
      settled={search.settled}
      onSearch={search.onText}
      onChoose={onChoose}
    />
  );
}
