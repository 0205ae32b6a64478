import fc from 'fast-check';
import { allows, ROLES, type Role } from '../domain/roles';
import { roleAt, highestRole, type Rights } from '../domain/rights';
import { boardKeys, boardSharesSchema, heldKeys, type BoardShare } from './sharing';

/* The rule as it is meant, person by person; the keys must come to the same. */

const plantId = fc.constantFrom('7', '8', '9');
const role = fc.constantFrom(...ROLES);
const may = fc.constantFrom('see' as const, 'change' as const);
const personId = fc.constantFrom('1', '2', '3');
const rights: fc.Arbitrary<Rights> = fc.record({
  everywhere: fc.option(role),
  plants: fc.dictionary(plantId, role),
});
const share: fc.Arbitrary<BoardShare> = fc.oneof(
  fc.record({ to: fc.constant('person' as const), personId, may }),
  fc.record({ to: fc.constant('role' as const), role, plantId: fc.option(plantId), may }),
);

function meant(
  person: { id: string; rights: Rights },
  ownerId: string,
  shares: readonly BoardShare[],
): boolean {
  const has = (held: Role | null, needed: Role): boolean => held !== null && allows(held, needed);
  if (person.id === ownerId || person.rights.everywhere === 'administrator') return true;
  return shares.some((each) => {
    if (each.to === 'person') return each.personId === person.id;
    return each.plantId === null
      ? has(highestRole(person.rights), each.role)
      : has(roleAt(person.rights, each.plantId), each.role);
  });
}

it('lets in exactly those whom a board is shared with', () => {
  fc.assert(
    fc.property(fc.record({ id: personId, rights }), personId, fc.array(share), (person, ownerId, shares) => {
      const held = heldKeys(person);
      const { seen, changed } = boardKeys(ownerId, shares);
      const opens = (keys: readonly string[]): boolean => keys.some((key) => held.includes(key));
      expect(opens(seen)).toBe(meant(person, ownerId, shares));
      const changing = shares.filter((each) => each.may === 'change');
      expect(opens(changed)).toBe(meant(person, ownerId, changing));
    }),
  );
});

it('takes no person and no role twice', () => {
  const twice = [
    { to: 'role', role: 'viewer', plantId: '7', may: 'see' },
    { to: 'role', role: 'viewer', plantId: '7', may: 'change' },
  ];
  expect(boardSharesSchema.isValidSync(twice)).toBe(false);
  expect(boardSharesSchema.isValidSync([twice[0], { ...twice[1], plantId: '8' }])).toBe(true);
  expect(boardSharesSchema.isValidSync([{ to: 'person', personId: 'x', may: 'see' }])).toBe(false);
});
