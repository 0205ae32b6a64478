import { useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { formatNumber } from '@vivid-beacon/core';
import { usePalette } from '../theme/useTheme';
import { Button } from './Button';
import { Field } from './Field';
import { CheckIcon } from './icons';
import { Rule } from './Rule';
import { Words } from './Words';

export interface PickOption<T extends string> {
  readonly value: T;
  readonly label: string;
  readonly detail?: string;
}

interface PickListProps<T extends string> {
  readonly name: string;
  readonly options: readonly PickOption<T>[];
  readonly chosen: T | null;
  readonly onChoose: (value: T) => void;
  /** Shows a search field above more than this many options. */
  readonly searchFrom?: number;
  readonly maxHeight?: number;
  /** Where the options are searched on the server: these are those that were found so far. */
  readonly searched?: {
    readonly text: string;
    readonly onText: (text: string) => void;
    readonly total: number;
    /** null = all that were found are here. */
    readonly onMore: (() => void) | null;
    readonly reading: boolean;
  };
}

const SHOWN_AT_MOST = 80;

/** A list of which one is chosen, with a search field where it is long. */
export function PickList<T extends string>({
  name,
  options,
  chosen,
  onChoose,
  searchFrom = 9,
  maxHeight,
  searched,
}: PickListProps<T>) {
  const palette = usePalette();
  const [own, setOwn] = useState('');
  const search = searched?.text ?? own;
  const words = own.toLowerCase().split(/\s+/).filter(Boolean);
  const found = options.filter(({ label, detail }) => {
    const text = `${label} ${detail ?? ''}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  const shown = searched ? found : found.slice(0, SHOWN_AT_MOST);
  const total = searched?.total ?? options.length;
  return (
    <View style={styles.list}>
      {(total >= searchFrom || search !== '') && (
        <Field
          label={`Search ${name.toLowerCase()}`}
          hideLabel
          placeholder={searched && search !== '' ? 'Search' : `Search ${formatNumber(total, 0)} entries`}
          value={search}
          onChange={searched?.onText ?? setOwn}
        />
      )}
      <ScrollView style={maxHeight ? { maxHeight } : undefined} keyboardShouldPersistTaps="handled">
        <View role="radiogroup" aria-label={name}>
          {shown.map(({ value, label, detail }) => {
            const on = value === chosen;
            return (
              <View key={value}>
                <Pressable
                  role="radio"
                  aria-checked={on}
                  onPress={() => onChoose(value)}
                  style={({ pressed }) => [
                    styles.option,
                    (on || pressed) && { backgroundColor: palette.water },
                  ]}
                >
                  <View style={styles.text}>
                    <Words as="rowTitle">{label}</Words>
                    {Boolean(detail) && (
                      <Words as="second" colour={palette.ink2}>
                        {detail}
                      </Words>
                    )}
                  </View>
                  {on && <CheckIcon size={20} color={palette.sea} strokeWidth={1.75} />}
                </Pressable>
                <Rule />
              </View>
            );
          })}
        </View>
        {searched?.onMore && (
          <Button
            variant="quiet"
            label={`Show more of ${formatNumber(searched.total, 0)}`}
            onPress={searched.onMore}
          />
        )}
        {!searched && found.length > SHOWN_AT_MOST && (
          <Words as="second" colour={palette.ink3} style={styles.more}>
            {`${found.length - SHOWN_AT_MOST} more. Type to narrow them down.`}
          </Words>
        )}
        {found.length === 0 && !searched?.reading && (
          <Words as="second" colour={palette.ink2} style={styles.more}>
            {search ? `Nothing found for "${search}".` : 'Nothing to choose from.'}
          </Words>
        )}
      </ScrollView>
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: 8 },
  option: {
    minHeight: 48,
    paddingVertical: 6,
    paddingHorizontal: 8,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 8,
  },
  text: { flex: 1 },
  more: { padding: 8 },
});
