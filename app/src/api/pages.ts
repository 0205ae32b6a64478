import { keepPreviousData, useInfiniteQuery, type InfiniteData } from '@tanstack/react-query';
import type { PageOf } from '@vivid-beacon/core';

const PAGE = 50;

type Part = { readonly offset: number; readonly limit: number };

/** The loaded pages of a long list. */
export interface Pages<Page> {
  readonly data: InfiniteData<Page> | undefined;
  readonly error: Error | null;
  readonly hasNextPage: boolean;
  readonly isPending: boolean;
  /** Whether these are still the pages of the previous search. */
  readonly isPlaceholderData: boolean;
  readonly fetchNextPage: () => unknown;
  readonly refetch: () => unknown;
}

/** A paged list. @param on false = disabled. */
export function usePages<Page extends PageOf<unknown>>(
  key: readonly unknown[],
  read: (part: Part) => Promise<Page>,
  on = true,
): Pages<Page> {
  return useInfiniteQuery({
    queryKey: key,
    queryFn: ({ pageParam }) => read({ offset: pageParam, limit: PAGE }),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const read = pages.reduce((n, { items }) => n + items.length, 0);
      return read < last.total && last.items.length > 0 ? read : undefined;
    },
    placeholderData: keepPreviousData,
    enabled: on,
  });
}

/** All loaded items without duplicates: items may move to a later page between requests. */
export function itemsOf<Item extends { readonly id: string }>(
  data: InfiniteData<PageOf<Item>> | undefined,
): readonly Item[] {
  const items = data?.pages.flatMap((page) => page.items) ?? [];
  return [...new Map(items.map((item) => [item.id, item])).values()];
}
