import { dictionary, named, oneOf, shape, type TypeOf } from '../schemas/shape';
import { allows, ROLES, type Role } from './roles';

/** What somebody may do, and where. Rights only add up: the role everywhere holds at every plant. */
export const rightsSchema = named(
  'Rights',
  shape({
    /** Role at every plant, also at those added later; null = only at the plants named. */
    everywhere: oneOf(ROLES).nullable(),
    /** Roles by id of the plant. */
    plants: dictionary(oneOf(ROLES)),
  }),
);
export type Rights = TypeOf<typeof rightsSchema>;

/** Rights that hold at every plant. */
export function rightsEverywhere(role: Role): Rights {
  return { everywhere: role, plants: {} };
}

/**
 * The role at a plant, or null for no rights there.
 * @example roleAt({ everywhere: 'viewer', plants: { '7': 'analyst' } }, '7') // => 'analyst'
 */
export function roleAt({ everywhere, plants }: Rights, plantId: string): Role | null {
  return higher(everywhere, plants[plantId] ?? null);
}

/** The highest role held anywhere; null = no rights at all. */
export function highestRole({ everywhere, plants }: Rights): Role | null {
  return Object.values(plants).reduce<Role | null>(higher, everywhere);
}

/**
 * Where somebody has at least the role `needed`.
 *
 * @returns ids of plants, ascending; null = everywhere.
 * @example plantsWith({ everywhere: null, plants: { '7': 'analyst', '9': 'viewer' } }, 'operator') // => ['7']
 */
export function plantsWith({ everywhere, plants }: Rights, needed: Role): string[] | null {
  if (everywhere !== null && allows(everywhere, needed)) return null;
  return Object.keys(plants)
    .filter((id) => allows(plants[id], needed))
    .sort((a, b) => Number(a) - Number(b));
}

function higher(a: Role | null, b: Role | null): Role | null {
  if (a === null || b === null) return a ?? b;
  return allows(a, b) ? a : b;
}
