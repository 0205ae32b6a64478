import * as yup from 'yup';
import type { SignedInPerson } from '../domain/person';
import { roleAt } from '../domain/rights';
import { allows, ROLES, type Role } from '../domain/roles';
import { idText } from '../schemas/parts';
import { nameKey } from '../text/sameName';
import { list, oneOf, taggedUnion, type TypeOf } from '../schemas/shape';

/* Who sees a board and who changes it: its owner, administrators of every plant, and those with whom it is shared. */

const may = () => oneOf(['see', 'change'] as const);
const MAX_SHARES = 100;

/** One line of "shared with": a person, or everybody who has at least a role, anywhere or at one plant. */
export const boardShareSchema = taggedUnion('BoardShare', 'to', {
  person: { personId: idText().required(), may: may() },
  role: { role: oneOf(ROLES), plantId: idText().nullable().defined(), may: may() },
});
export type BoardShare = TypeOf<typeof boardShareSchema>;

export const boardSharesSchema = list(boardShareSchema)
  .max(MAX_SHARES, `A board is shared with ${MAX_SHARES} people and roles at most`)
  .test(
    'twice',
    'The same person or role is named twice',
    (shares) => !shares?.every(Boolean) || new Set(shares.map(shareKey)).size === shares.length,
  );

/** Everybody sees it, and analysts change it. */
export const SHARED_WITH_ALL: readonly BoardShare[] = [
  { to: 'role', role: 'viewer', plantId: null, may: 'see' },
  { to: 'role', role: 'analyst', plantId: null, may: 'change' },
];

/**
 * What a share opens with: "person:12", "analyst" (anywhere), "analyst@7" (at plant 7).
 */
export function shareKey(share: BoardShare): string {
  if (share.to === 'person') return `person:${share.personId}`;
  return share.plantId === null ? share.role : `${share.role}@${share.plantId}`;
}

const ADMINISTRATOR_EVERYWHERE = 'administrator@*';

/**
 * The keys that open a board, so that one comparison of lists decides, here and in SQL: whoever holds one of them may.
 *
 * @returns `seen` for those who may see it, `changed` for those who may also change it.
 * @example boardKeys('3', []) // => { seen: ['person:3', 'administrator@*'], changed: ['person:3', 'administrator@*'] }
 */
export function boardKeys(
  ownerId: string,
  shares: readonly BoardShare[],
): { readonly seen: string[]; readonly changed: string[] } {
  const own = [`person:${ownerId}`, ADMINISTRATOR_EVERYWHERE];
  const keysOf = (share: BoardShare): string[] =>
    // Who has the role at every plant has it at this one, too.
    share.to === 'role' && share.plantId !== null ? [shareKey(share), `${share.role}@*`] : [shareKey(share)];
  const keys = (those: readonly BoardShare[]): string[] => [...new Set([...own, ...those.flatMap(keysOf)])];
  return { seen: keys(shares), changed: keys(shares.filter((each) => each.may === 'change')) };
}

/**
 * The keys somebody holds: their own, and those of every role they have, anywhere, everywhere and at each plant.
 *
 * @example heldKeys({ id: '3', rights: { everywhere: null, plants: { '7': 'operator' } } })
 *   // => ['person:3', 'viewer', 'operator', 'viewer@7', 'operator@7']
 */
export function heldKeys({ id, rights }: Pick<SignedInPerson, 'id' | 'rights'>): string[] {
  const upTo = (role: Role): readonly Role[] => ROLES.filter((each) => allows(role, each));
  const anywhere = [rights.everywhere, ...Object.values(rights.plants)].flatMap((role) =>
    role === null ? [] : upTo(role),
  );
  return [
    `person:${id}`,
    ...new Set(anywhere),
    ...(rights.everywhere === null ? [] : upTo(rights.everywhere).map((role) => `${role}@*`)),
    ...Object.keys(rights.plants).flatMap((plantId) =>
      upTo(roleAt(rights, plantId)!).map((role) => `${role}@${plantId}`),
    ),
  ];
}

/** Who may say with whom a board is shared: its owner, and administrators of every plant. */
export function mayShare(ownerId: string, person: Pick<SignedInPerson, 'id' | 'rights'>): boolean {
  const held = heldKeys(person);
  return boardKeys(ownerId, []).changed.some((key) => held.includes(key));
}

/**
 * With whom, in words. @param names of people and plants, by "person:12" and "plant:7".
 * @example shareWords({ to: 'role', role: 'operator', plantId: '7', may: 'see' }, { 'plant:7': 'Quayside' })
 *   // => 'Operators and above at Quayside'
 */
export function shareWords(share: BoardShare, names: Readonly<Record<string, string>>): string {
  if (share.to === 'person') return names[`person:${share.personId}`] ?? 'Somebody who is gone';
  const { role, plantId } = share;
  const who =
    role === 'viewer'
      ? 'Everybody'
      : `${role[0].toUpperCase()}${role.slice(1)}s${role === 'administrator' ? '' : ' and above'}`;
  return plantId === null ? who : `${who} at ${names[`plant:${plantId}`] ?? 'a plant that is gone'}`;
}

/** Whether a board is for its owner alone, for everybody, or for some. */
export const AUDIENCES = ['owner', 'everybody', 'some'] as const;
export type Audience = (typeof AUDIENCES)[number];

export function audienceOf(shares: readonly BoardShare[]): Audience {
  if (shares.length === 0) return 'owner';
  return shares.some((each) => each.to === 'role' && each.role === 'viewer' && each.plantId === null)
    ? 'everybody'
    : 'some';
}

const MAX_LABELS = 10;
const MAX_LABEL = 40;

/** Words that boards are gathered under: "Energy", "Morning round". */
export const boardLabelsSchema = list(
  yup
    .string()
    .trim()
    .min(1, 'A label has at least one letter')
    .max(MAX_LABEL, `A label has at most ${MAX_LABEL} letters`)
    .required(),
)
  .max(MAX_LABELS, `A board has at most ${MAX_LABELS} labels`)
  .test(
    'twice',
    'The same label is given twice',
    (labels) => !labels || new Set(labels.map((each) => nameKey(String(each)))).size === labels.length,
  );
