import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useDebounced } from '../hooks/useDebounced';
import { Field } from './Field';

/** Debounce of the search, ms. */
const SETTLED_MS = 200;

/** The text of a search field, and its debounced value. */
export function useSearch(): {
  readonly text: string;
  readonly settled: string;
  readonly onText: (text: string) => void;
} {
  const [text, onText] = useState('');
  return { text, settled: useDebounced(text, SETTLED_MS), onText };
}

/** Searches a list on the server. */
export function SearchField({
  label,
  placeholder,
  search,
}: {
  /** "Search flags". */
  readonly label: string;
  /** By what: "Search by title, taker or asset". */
  readonly placeholder: string;
  readonly search: ReturnType<typeof useSearch>;
}) {
  return (
    <View style={styles.search}>
      <Field label={label} hideLabel placeholder={placeholder} value={search.text} onChange={search.onText} />
    </View>
  );
}

const styles = StyleSheet.create({ search: { paddingVertical: 8 } });
