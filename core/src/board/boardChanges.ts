import { list, named, shape, text, truth, type TypeOf } from '../schemas/shape';
import type { BoardDocument, Readout } from './board';

export const boardChangesSchema = named(
  'BoardChanges',
  shape({
    /** The title before; null = it is the same. */
    titleBefore: text().nullable(),
    /** Whether window, scope or hours are others. */
    frame: truth(),
    /** Ids of readouts. */
    added: list(text()),
    removed: list(text()),
    changed: list(text()),
    /** Whether those that both have stand in another order or have other sizes. */
    arranged: truth(),
  }),
);
/** What differs between two versions of a board. */
export type BoardChanges = TypeOf<typeof boardChangesSchema>;

interface Version {
  readonly title: string;
  readonly document: BoardDocument;
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));

/** With the members of objects in order of their names: documents from the database have another order. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (typeof value !== 'object' || value === null) return value;
  const members = Object.entries(value as Record<string, unknown>).sort(([a], [b]) => (a < b ? -1 : 1));
  return Object.fromEntries(members.map(([name, each]) => [name, sorted(each)]));
}

const ids = (readouts: readonly Readout[]): string[] => readouts.map(({ id }) => id);

/**
 * What differs between a version of a board and the one before it. A readout that only stands elsewhere or has another size
 * counts as arranged, not as changed.
 */
export function boardChanges(before: Version, after: Version): BoardChanges {
  const was = new Map(before.document.readouts.map((each) => [each.id, each]));
  const is = new Map(after.document.readouts.map((each) => [each.id, each]));
  const kept = after.document.readouts.filter(({ id }) => was.has(id));
  const changed = kept.filter((each) => !same({ ...each, size: null }, { ...was.get(each.id)!, size: null }));
  const order = ids(before.document.readouts).filter((id) => is.has(id));
  const { readouts: _before, version: _versionBefore, ...frameBefore } = before.document;
  const { readouts: _after, version: _versionAfter, ...frameAfter } = after.document;
  return {
    titleBefore: before.title === after.title ? null : before.title,
    frame: !same(frameBefore, frameAfter),
    added: ids(after.document.readouts).filter((id) => !was.has(id)),
    removed: ids(before.document.readouts).filter((id) => !is.has(id)),
    changed: ids(changed),
    arranged: kept.some((each, i) => order[i] !== each.id || !same(each.size, was.get(each.id)!.size)),
  };
}

const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

/**
 * What differs, in words.
 * @example boardChangesWords({ titleBefore: null, frame: false, added: ['a'], removed: [], changed: ['b', 'c'], arranged: false })
 *   // => '1 readout added, 2 readouts changed'
 */
export function boardChangesWords({
  titleBefore,
  frame,
  added,
  removed,
  changed,
  arranged,
}: BoardChanges): string {
  const parts = [
    titleBefore !== null && `renamed from ${titleBefore}`,
    frame && 'window, scope or hours changed',
    added.length > 0 && `${count(added.length, 'readout')} added`,
    removed.length > 0 && `${count(removed.length, 'readout')} removed`,
    changed.length > 0 && `${count(changed.length, 'readout')} changed`,
    arranged && 'readouts arranged anew',
  ].filter((part) => part !== false);
  return parts.length === 0 ? 'nothing changed' : parts.join(', ');
}
