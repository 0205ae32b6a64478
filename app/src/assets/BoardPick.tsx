import { itemsOf } from '../api/pages';
import { useBoardPages } from '../api/boards';
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
  const found = useBoardPages({ search: search.settled });
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
      search={search}
      onChoose={onChoose}
    />
  );
}
