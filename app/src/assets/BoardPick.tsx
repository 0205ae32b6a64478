import { itemsOf } from '../api/pages';
import { useBoardPages } from '../api/queries';
import { useSearch } from '../components/SearchField';
import { SearchedPick } from './SearchedPick';

interface BoardPickProps {
  readonly chosen: string | null;
  readonly onChoose: (id: string) => void;
  readonly maxHeight?: number;
}

/** Boards by title, searched on the server, to choose one from. */
export function BoardPick({ chosen, onChoose, maxHeight }: BoardPickProps) {
  const search = useSearch();
  const found = useBoardPages(search.settled);
  return (
    <SearchedPick
      name="Board"
      maxHeight={maxHeight}
      options={itemsOf(found.data).map(({ id, title, ownerName }) => ({
        value: id,
        label: title,
        detail: ownerName,
      }))}
      chosen={chosen}
      found={found}
      search={search.text}
      settled={search.settled}
      onSearch={search.onText}
      onChoose={onChoose}
    />
  );
}
