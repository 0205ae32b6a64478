import { oneOf, shape, text, type TypeOf, named } from '../schemas/shape';
import { rightsSchema } from './rights';
import { ROLES } from './roles';

/** Somebody with an account; `role` is the highest they have anywhere. */
export const personSchema = named('Person', shape({ id: text(), name: text(), role: oneOf(ROLES) }));
export type Person = TypeOf<typeof personSchema>;

/** Somebody with what they may do where. */
export const signedInPersonSchema = named(
  'SignedInPerson',
  shape({ id: text(), name: text(), role: oneOf(ROLES), rights: rightsSchema }),
);
export type SignedInPerson = TypeOf<typeof signedInPersonSchema>;
