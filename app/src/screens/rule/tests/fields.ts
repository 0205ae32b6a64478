import type { AlarmTest, AlarmTestKind } from '@vivid-beacon/core';

/** What the fields of a test of one kind are drawn with. */
export interface FieldsProps<Kind extends AlarmTestKind> {
  readonly test: Extract<AlarmTest, { readonly kind: Kind }>;
  /** Of the metric. */
  readonly unit: string;
  readonly onChange: (test: AlarmTest) => void;
}

/** Values with their words, in order, to choose between. */
export const optionsOf = <Value extends string>(words: Readonly<Record<Value, string>>) =>
  (Object.keys(words) as Value[]).map((value) => ({ value, label: words[value] }));

/** What is wrong with a number that must be more than nothing. */
export const positive = (x: number): string | undefined => (x > 0 ? undefined : 'This must be more than 0');
