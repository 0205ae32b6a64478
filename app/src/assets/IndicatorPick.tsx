import { windowWords, type IndicatorReading } from '@vivid-beacon/core';
import { useIndicatorPages } from '../api/indicators';
import { itemsOf } from '../api/pages';
import { useSearch } from '../components/SearchField';
import { SearchedPick } from './SearchedPick';

/** Indicators with their asset and window, searched on the server, to choose one from. */
export function IndicatorPick({
  chosen,
  onChoose,
}: {
  readonly chosen: string | null;
  readonly onChoose: (indicator: IndicatorReading) => void;
}) {
  const search = useSearch();
  const found = useIndicatorPages(search.settled);
  const rows = itemsOf(found.data);
  return (
    <SearchedPick
      name="Indicator"
      options={rows.map(({ id, name, place, window }) => ({
        value: id,
        label: name,
        detail: `${place}, ${windowWords(window)}`,
      }))}
      chosen={chosen}
      found={found}
      search={search}
      onChoose={(id) => onChoose(rows.find((row) => row.id === id)!)}
    />
  );
}
