import type { Scope } from '../domain/query';
import type { HoursFilter } from '../time/hoursFilter';

/** Ids from the plant down to an asset; undefined where it is not known. */
export type PathOf = (id: string) => readonly string[] | undefined;

/**
 * Intersection of two scopes. An asset stands for everything below it.
 *
 * @param pathOf ids from the plant down to an asset; undefined for a removed one.
 */
export function joinScopes(a: Scope, b: Scope | null, pathOf: PathOf): Scope {
  if (!b) return a;
  return {
    assetIds: joinAssets(a.assetIds, b.assetIds, pathOf),
    attributes: [...a.attributes, ...b.attributes],
  };
}

function joinAssets(
  a: readonly string[] | null,
  b: readonly string[] | null,
  pathOf: PathOf,
): readonly string[] | null {
  if (!a || !b) return a ?? b;
  const lies = (id: string, inside: ReadonlySet<string>): boolean =>
    (pathOf(id) ?? [id]).some((each) => inside.has(each));
  const [inA, inB] = [new Set(a), new Set(b)];
  return [...new Set([...a.filter((id) => lies(id, inB)), ...b.filter((id) => lies(id, inA))])];
}

/** Hours that pass both filters; null = all hours. */
export function joinHours(a: HoursFilter | null, b: HoursFilter | null): HoursFilter | null {
  if (!a || !b) return a ?? b;
  return { kind: 'all', of: [a, b] };
}
