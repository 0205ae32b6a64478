/** What a name is known by: names that differ only in capitals or in blanks around them are one. */
export const nameKey = (name: string): string => name.trim().toLocaleLowerCase('en');

/**
 * The value of an attribute by its name.
 * @example attributeOf({ Maker: 'Weld' }, 'maker') // => 'Weld'
 */
export function attributeOf(
  attributes: Readonly<Record<string, string | number>>,
  name: string,
): string | number | undefined {
  if (Object.hasOwn(attributes, name)) return attributes[name];
  const key = nameKey(name);
  const found = Object.keys(attributes).find((each) => nameKey(each) === key);
  return found === undefined ? undefined : attributes[found];
}

/** Whether two values of an attribute are the same; text is not the number it looks like. */
export function sameValue(a: string | number, b: string | number): boolean {
  if (typeof a === 'number' || typeof b === 'number') return a === b;
  return nameKey(a) === nameKey(b);
}
