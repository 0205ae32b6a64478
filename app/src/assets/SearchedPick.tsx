import type { InfiniteData } from '@tanstack/react-query';
import type { PageOf } from '@vivid-beacon/core';
import { PickList, type PickOption } from '../components/PickList';

/** Pages of what was found so far. */
interface Found {
  readonly data: InfiniteData<PageOf<unknown>> | undefined;
  readonly hasNextPage: boolean;
  readonly isPending: boolean;
  /** Whether these are still what was found before. */
  readonly isPlaceholderData: boolean;
  readonly fetchNextPage: () => unknown;
}

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
  settled,
  onSearch,
  onChoose,
}: SearchedPickProps & {
  readonly options: readonly PickOption<string>[];
  readonly found: Found;
  readonly search: string;
  /** What was asked for, after the typing. */
  readonly settled: string;
  readonly onSearch: (text: string) => void;
  readonly onChoose: (id: string) => void;
}) {
  // Until the answer comes, what was found before stays only as far as it fits what is typed.
  const waiting = search !== settled || found.isPlaceholderData;
  const shown = waiting ? options.filter((option) => contains(option, search)) : options;
  return (
    <PickList
      name={name}
      options={instead ? [{ value: INSTEAD, label: instead.label }, ...shown] : shown}
      chosen={chosen ?? (instead ? INSTEAD : null)}
      onChoose={(id) => (id === INSTEAD ? instead!.onChoose() : onChoose(id))}
      maxHeight={maxHeight}
      searched={{
        text: search,
        onText: onSearch,
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
