import type { AnySchema } from 'yup';

/** How the editor asks for a choice: its values with their labels. */
export interface Ask {
  /** "Drawn as". */
  readonly label: string;
  /** Labels by value; "true" and "false" for a yes-no choice. */
  readonly words: Readonly<Record<string, string>>;
  /** Hidden while other choices have these values. */
  readonly unless?: Readonly<Record<string, unknown>>;
}

/** A field of a form with the way the editor asks for it. Fields without one have a panel of their own. */
export const asked = <Schema extends AnySchema>(field: Schema, ask: Ask): Schema =>
  field.meta({ ask }) as Schema;

/** How the editor asks for a field; null = in a panel of its own. */
export const askOf = (field: unknown): Ask | null =>
  ((field as AnySchema).meta?.() as { readonly ask?: Ask } | undefined)?.ask ?? null;
