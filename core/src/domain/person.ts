import type { Role } from './roles';

/** Somebody with an account. */
export interface Person {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
}
