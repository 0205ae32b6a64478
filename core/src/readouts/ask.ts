import type { AnySchema } from 'yup';

/** Labels by value for a choice between words; "true" and "false" for a yes-no choice. */
interface WordsAsk {
  readonly kind: 'words';
  /** "Drawn as". */
  readonly label: string;
  readonly words: Readonly<Record<string, string>>;
  /** Hidden while other choices have these values. */
  readonly unless?: Readonly<Record<string, unknown>>;
}

/** A number that may be left empty. */
interface NumberAsk {
  readonly kind: 'number';
  /** "Rows at most (empty: all)". */
  readonly label: string;
  readonly unit?: string;
  readonly unless?: Readonly<Record<string, unknown>>;
}

/** How the editor asks for a choice. */
export type Ask = WordsAsk | NumberAsk;

/** A field of a form with the words among which the editor offers it. Fields without any have a panel of their own. */
export const asked = <Schema extends AnySchema>(field: Schema, ask: Omit<WordsAsk, 'kind'>): Schema =>
  field.meta({ ask: { kind: 'words', ...ask } }) as Schema;

/** A field of a form that the editor asks for as a number. */
export const askedNumber = <Schema extends AnySchema>(field: Schema, ask: Omit<NumberAsk, 'kind'>): Schema =>
  field.meta({ ask: { kind: 'number', ...ask } }) as Schema;

/** How the editor asks for a field; null = in a panel of its own. */
export const askOf = (field: unknown): Ask | null =>
  ((field as AnySchema).meta?.() as { readonly ask?: Ask } | undefined)?.ask ?? null;
