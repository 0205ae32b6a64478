import { oneOf, shape, text, type TypeOf, named } from '../schemas/shape';
import { ROLES } from './roles';

/** Somebody with an account. */
export const personSchema = named('Person', shape({ id: text(), name: text(), role: oneOf(ROLES) }));
export type Person = TypeOf<typeof personSchema>;
