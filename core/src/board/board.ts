import * as yup from 'yup';
import { scopeSchema, WHOLE_SCOPE } from '../domain/query';
import {
  formOf,
  READOUT_FORMS,
  showsWords,
  traitsOfForm,
  type ChoicesOf,
  type ReadoutForm,
} from '../readouts/forms';
import { hoursSchema } from '../schemas/hours';
import { named, taggedUnion, type TypeOf } from '../schemas/shape';
import { windowSchema } from '../time/windowSpec';
import { baseFields, type BaseReadout } from './choices';

/** Only forms that show words have no measures. */
const measuresOf = (form: ReadoutForm): typeof baseFields.measures =>
  showsWords({ form }) ? baseFields.measures : baseFields.measures.min(1, '${path}: say what is shown');

/** The fields of a readout: those of every readout, and those of its form. */
const fieldsByForm = Object.fromEntries(
  READOUT_FORMS.map((form) => [
    form,
    { ...baseFields, measures: measuresOf(form), ...(formOf(form).fields as yup.ObjectShape) },
  ]),
) as unknown as {
  readonly [Form in ReadoutForm]: typeof baseFields & {
    readonly [Name in keyof ChoicesOf<Form>]: yup.Schema<ChoicesOf<Form>[Name]>;
  };
};

const readoutSchema = taggedUnion('Readout', 'form', fieldsByForm);

/** A readout of a given form. */
export type ReadoutOf<Form extends ReadoutForm> = Form extends ReadoutForm
  ? BaseReadout & ChoicesOf<Form> & { readonly form: Form }
  : never;
/** A readout of any form. */
export type Readout = ReadoutOf<ReadoutForm>;

export const BOARD_FORMAT_VERSION = 3;
const MAX_READOUTS = 60;

/** The content of a board as it is stored, sent and written to a file. */
export const boardDocumentSchema = named(
  'BoardDocument',
  yup
    .object({
      version: yup
        .number()
        .oneOf([BOARD_FORMAT_VERSION] as const)
        .required(),
      window: windowSchema,
      scope: scopeSchema.default(WHOLE_SCOPE),
      hours: hoursSchema.nullable().default(null),
      readouts: yup
        .array(readoutSchema)
        .max(MAX_READOUTS)
        .required()
        .test('ids', '${path}: two readouts have the same id', (list) =>
          Boolean(
            !list || list.some((each) => !each) || new Set(list.map(({ id }) => id)).size === list.length,
          ),
        ),
    })
    .noUnknown(),
);
type CheckedDocument = TypeOf<typeof boardDocumentSchema>;
export interface BoardDocument extends Omit<CheckedDocument, 'readouts'> {
  readonly readouts: readonly Readout[];
}

export const boardTitleSchema = yup.string().trim().min(1, 'A board needs a title').max(120).required();

/** A readout with nothing chosen yet. */
export function emptyReadout<Form extends ReadoutForm>(id: string, form: Form): ReadoutOf<Form> {
  const base: BaseReadout = {
    id,
    title: null,
    footnote: null,
    indicatorId: null,
    measures: [],
    window: null,
    groupBy: null,
    multiplesBy: null,
    steps: [],
    keepBlanks: true,
    scope: null,
    hours: null,
    band: null,
    compare: traitsOfForm(form).compare,
    decimals: null,
    display: 'units',
    size: null,
    link: null,
  };
  return { ...base, ...formOf(form).defaults, form } as ReadoutOf<Form>;
}

/** Choices for a readout of any form. */
export type ReadoutParts = Partial<
  Omit<BaseReadout, 'id'> &
    Omit<ChoicesOf<'trend'>, 'scale'> &
    ChoicesOf<'note'> &
    ChoicesOf<'ranking'> &
    ChoicesOf<'grid'> &
    ChoicesOf<'breakdown'> &
    ChoicesOf<'table'> &
    ChoicesOf<'scatter'>
> & { readonly scale?: Partial<ChoicesOf<'gauge'>['scale'] & ChoicesOf<'trend'>['scale']> };

/**
 * A readout with these choices and defaults for the others; choices its form does not have are ignored.
 *
 * @example makeReadout('r1', 'trend', { mark: 'columns' }).mark // => 'columns'
 */
export function makeReadout<Form extends ReadoutForm>(
  id: string,
  form: Form,
  parts: ReadoutParts = {},
): ReadoutOf<Form> {
  return withMatchingChoices(emptyReadout(id, form), parts) as ReadoutOf<Form>;
}

/**
 * Choices overwritten by those of the same name in `from`; nested objects take over only the fields that both
 * have.
 */
export function withMatchingChoices<Choices extends object>(choices: Choices, from: object): Choices {
  const given = new Map<string, unknown>(Object.entries(from));
  return Object.fromEntries(
    Object.entries(choices).map(([name, usual]: [string, unknown]) => {
      const value = given.get(name);
      if (value === undefined) return [name, usual];
      return [
        name,
        name === 'scale' && isPart(usual) && isPart(value) ? withMatchingChoices(usual, value) : value,
      ];
    }),
  ) as Choices;
}

const isPart = (value: unknown): value is object => typeof value === 'object' && value !== null;
