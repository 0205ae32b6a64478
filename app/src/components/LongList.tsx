import type { InfiniteData } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatNumber, type PageOf } from '@vivid-beacon/core';
import { itemsOf, type Pages } from '../api/pages';
import { QueryResult } from './QueryResult';
import { Button } from './Button';
import { Words } from './Words';

interface LongListProps<Item, Page> {
  readonly pages: Pages<Page>;
  /** What is being read, for people: "Loading alarms". */
  readonly reading: string;
  /** One item; `last` = no line is drawn under it. */
  readonly children: (item: Item, last: boolean) => ReactNode;
  /** Stands there when there is none. */
  readonly empty: ReactNode;
  /** The words that are looked for. */
  readonly searched?: string;
  /** Of what is shown before the answer comes: whether an item fits what is asked for now. */
  readonly fits?: (item: Item) => boolean;
}

/** A list that is read page by page, with a button for more. */
export function LongList<Item extends { readonly id: string }, Page extends PageOf<Item>>({
  pages,
  reading,
  children,
  empty,
  searched = '',
  fits,
}: LongListProps<Item, Page>) {
  return (
    <QueryResult query={pages} reading={reading}>
      {(data: InfiniteData<PageOf<Item>>) => {
        const all = itemsOf(data);
        // Until the answer arrives, earlier items stay if they match the choice.
        const shown = pages.isPlaceholderData && fits ? all.filter(fits) : all;
        return (
          <>
            {shown.map((item, i) => children(item, i === shown.length - 1))}
            {shown.length === 0 && <Nothing searched={searched} empty={empty} />}
            {pages.hasNextPage && (
              <View style={styles.more}>
                <Button
                  variant="quiet"
                  label={`Show more of ${formatNumber(data.pages[0].total, 0)}`}
                  onPress={() => void pages.fetchNextPage()}
                />
              </View>
            )}
          </>
        );
      }}
    </QueryResult>
  );
}

function Nothing({ searched, empty }: { readonly searched: string; readonly empty: ReactNode }) {
  const said = searched === '' ? empty : 'Nothing matches these words.';
  return typeof said === 'string' ? <Words as="body">{said}</Words> : said;
}

const styles = StyleSheet.create({ more: { paddingVertical: 10, alignItems: 'flex-start' } });
