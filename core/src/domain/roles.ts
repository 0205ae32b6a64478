/** Each role may do all that the ones before it may. */
export const ROLES = ['viewer', 'operator', 'analyst', 'administrator'] as const;
export type Role = (typeof ROLES)[number];

/**
 * Whether `role` includes the rights of `needed`.
 * @example allows('analyst', 'operator') // => true
 */
export function allows(role: Role, needed: Role): boolean {
  return ROLES.indexOf(role) >= ROLES.indexOf(needed);
}

/** The roles that include the rights of `needed`: `rolesFrom('analyst') // => ['analyst', 'administrator']`. */
export function rolesFrom(needed: Role): Role[] {
  return ROLES.filter((role) => allows(role, needed));
}
