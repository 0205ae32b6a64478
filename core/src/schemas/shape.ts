import './safeText';
import * as yup from 'yup';

/* Pieces that schemas of answers and documents are made of. Each must be there unless it says otherwise. */

type Unchangeable<T> = T extends object ? { readonly [K in keyof T]: Unchangeable<T[K]> } : T;

/**
 * The readonly type of what a schema accepts.
 *
 * `type Person = TypeOf<typeof personSchema>; // { readonly id: string; readonly name: string; … }`
 */
export type TypeOf<S extends yup.ISchema<unknown>> = Unchangeable<yup.InferType<S>>;

type ObjectOf<Fields extends yup.ObjectShape> = yup.ObjectSchema<
  yup.TypeFromShape<Fields, yup.AnyObject>,
  yup.AnyObject,
  yup.DefaultFromShape<Fields>
>;

/** An object with these members and no others. */
export const shape = <Fields extends yup.ObjectShape>(fields: Fields): ObjectOf<Fields> =>
  yup.object(fields).noUnknown().required() as never;

export const text = () => yup.string().defined();
export const amount = () => yup.number().defined();
export const amountOrNull = () => amount().nullable();
export const textOrNull = () => text().nullable();
export const truth = () => yup.boolean().defined();

/** One of these words. */
export const oneOf = <const Word extends string>(words: readonly Word[]) =>
  yup.string().oneOf<Word>(words).defined();

export const list = <Item extends yup.ISchema<unknown>>(item: Item) =>
  yup.array<yup.AnyObject, yup.InferType<Item>>(item as never).defined();

/** Gives a shape the name that the API's description calls it by. */
export const named = <S extends { meta: (told: Record<string, unknown>) => S }>(name: string, schema: S): S =>
  schema.meta({ name });

type JsonSchema = Readonly<Record<string, unknown>>;

/** A value that is checked whole, where a schema for each of its members would cost too much or cannot be told. */
export const checkedBy = <T>(fits: (value: unknown) => value is T & {}, jsonSchema: JsonSchema) =>
  yup
    .mixed<T & {}>(fits as never)
    .defined()
    .meta({ jsonSchema });

const isNumber = (value: unknown): value is number => typeof value === 'number';

/** Long lists of numbers. */
export const amounts = () =>
  checkedBy((value): value is number[] => Array.isArray(value) && value.every(isNumber), {
    type: 'array',
    items: { type: 'number' },
  });
export const amountsOrNulls = () =>
  checkedBy(
    (value): value is (number | null)[] =>
      Array.isArray(value) && value.every((each) => each === null || isNumber(each)),
    { type: 'array', items: { type: ['number', 'null'] } },
  );

/** Members of any names that are all alike. */
export function dictionary<Value extends yup.ISchema<unknown>>(value: Value) {
  const schema = value as unknown as yup.Schema<yup.InferType<Value>>;
  return yup
    .mixed<Record<string, yup.InferType<Value>>>(
      (each): each is Record<string, yup.InferType<Value>> =>
        typeof each === 'object' && each !== null && !Array.isArray(each),
    )
    .defined()
    .test('members', function (members) {
      for (const [name, each] of Object.entries(members ?? {})) {
        try {
          schema.validateSync(each, { strict: true });
        } catch (error) {
          return this.createError({ message: `${this.path}.${name}: ${(error as Error).message}` });
        }
      }
      return true;
    })
    .meta({ members: value });
}

type Variants = Readonly<Record<string, yup.ObjectSchema<yup.AnyObject>>>;

/** An object whose kind decides which other members it has, as a type. */
export type TaggedUnion<Key extends string, Fields extends Readonly<Record<string, yup.ObjectShape>>> = {
  [Kind in keyof Fields]: yup.InferType<ObjectOf<Fields[Kind]>> & { [K in Key]: Kind };
}[keyof Fields];

/**
 * An object whose kind decides which other members it has. Members that only other kinds have are left out; what no kind
 * has is refused.
 *
 * @param name what the API's description calls it. @param key the member that tells the kind.
 * @param fields the other members of each kind. @param check what must hold of a kind as a whole: null, or what is wrong.
 * @example
 * taggedUnion('Shelf', 'kind', { open: {}, until: { at: momentMs().required() } })
 *   .isValidSync({ kind: 'until', at: 0 }) // => true
 */
export function taggedUnion<Key extends string, Fields extends Readonly<Record<string, yup.ObjectShape>>>(
  name: string,
  key: Key,
  fields: Fields,
  check: { readonly [Kind in keyof Fields]?: (value: never) => string | null } = {},
): yup.Lazy<TaggedUnion<Key, Fields>> {
  type Value = TaggedUnion<Key, Fields>;
  const kinds = Object.keys(fields);
  const known = new Set(Object.values(fields).flatMap((each) => Object.keys(each)));
  const variantOf = (kind: string): Variants[string] =>
    yup
      .object({ [key]: yup.string().oneOf([kind]).defined(), ...fields[kind] })
      .noUnknown()
      .required();
  const variants: Variants = Object.fromEntries(kinds.map((kind) => [kind, variantOf(kind)]));
  const checks: Variants = Object.fromEntries(
    kinds.map((kind) => {
      const others = [...known].filter((each) => !(each in fields[kind]));
      const leftOut = Object.fromEntries(others.map((each) => [each, yup.mixed().strip()]));
      const wrong = check[kind] as ((value: unknown) => string | null) | undefined;
      const whole = variants[kind].shape(leftOut).test('whole', (value, context) => {
        const message = wrong ? wrong(value) : null;
        return message === null || context.createError({ message });
      });
      return [kind, whole];
    }),
  );
  const none = yup
    .mixed<Value & {}>()
    .required()
    .test('kind', (value, context) => {
      const given = (value as Record<string, unknown> | undefined)?.[key];
      const place = context.path ? `${context.path}.${key}` : key;
      const message = `${place} must be one of ${kinds.join(', ')}, got ${String(given).slice(0, 40)}`;
      return context.createError({ message, path: place });
    })
    .meta({ name, variants });
  return yup.lazy<yup.Schema<Value>>((value: unknown) => {
    const kind = (value as Record<string, unknown> | null | undefined)?.[key];
    const found = typeof kind === 'string' && Object.hasOwn(checks, kind) ? checks[kind] : none;
    return found as unknown as yup.Schema<Value>;
  });
}

/** Another schema where a union is left out; null counts as left out where `usual` is null. */
function orUsual<Value>(union: yup.ISchema<unknown>, usual: object | null): yup.Lazy<Value> {
  const left = yup.mixed().nullable().default(usual).meta({ left: { union, usual } });
  return yup.lazy<yup.Schema<Value>>((value: unknown, options) => {
    const isLeftOut = value === undefined || (value === null && usual === null);
    return (isLeftOut ? left : union.resolve({ ...options, value })) as unknown as yup.Schema<Value>;
  });
}

/** A union that may be left out: it is `usual` then. */
export const orElse = <Union extends yup.ISchema<unknown>>(
  union: Union,
  usual: yup.InferType<Union> & object,
) => orUsual<yup.InferType<Union>>(union, usual);

/** A union that may be null; so it is where it is left out. */
export const orNull = <Union extends yup.ISchema<unknown>>(union: Union) =>
  orUsual<yup.InferType<Union> | null>(union, null);
