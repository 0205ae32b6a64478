import type { PageOf } from '@vivid-beacon/core';
import type { Pages } from '../api/pages';
import type { useSearch } from '../components/SearchField';
import { PickList, type PickOption } from '../components/PickList';

/** What metrics and assets are picked with alike. */
export interface SearchedPickProps {
  readonly name: string;
  readonly chosen: string | null;
  /** Something else that can be chosen instead, above them. */
  readonly instead?: { readonly label: string; readonly onChoose: () => void };
  readonly maxHeight?: number;
}

const INSTEAD = 'instead';

/** A pick list of what is searched on the server. */
export function SearchedPick({
  name,
  chosen,
  instead,
  maxHeight,
  options,
  found,
  search,
  onChoose,
}: SearchedPickProps & {
  readonly options: readonly PickOption<string>[];
  readonly found: Pages<PageOf<unknown>>;
  readonly search: ReturnType<typeof useSearch>;
  readonly onChoose: (id: string) => void;
}) {
  // Until the answer arrives, earlier results stay if they match the typed text.
  const waiting = search.text !== search.settled || found.isPlaceholderData;
  const shown = waiting ? options.filter((option) => contains(option, search.text)) : options;
  return (
    <PickList
      name={name}
      options={instead ? [{ value: INSTEAD, label: instead.label }, ...shown] : shown}
      chosen={chosen ?? (instead ? INSTEAD : null)}
      onChoose={(id) => (id === INSTEAD ? instead!.onChoose() : onChoose(id))}
      maxHeight={maxHeight}
      searched={{
        text: search.text,
        onText: search.onText,
        total: found.data?.pages[0].total ?? 0,
        onMore: found.hasNextPage ? () => void found.fetchNextPage() : null,
        reading: found.isPending || waiting,
      }}
    />
  );
}

function contains({ label, detail }: PickOption<string>, search: string): boolean {
  const text = `${label} ${detail ?? ''}`.toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
