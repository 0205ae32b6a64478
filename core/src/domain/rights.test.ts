import fc from 'fast-check';
import { allows, ROLES } from './roles';
import { highestRole, plantsWith, rightsEverywhere, roleAt, type Rights } from './rights';

const role = fc.constantFrom(...ROLES);
const rights: fc.Arbitrary<Rights> = fc.record({
  everywhere: fc.option(role),
  plants: fc.dictionary(fc.integer({ min: 1, max: 9 }).map(String), role, { maxKeys: 4 }),
});

describe('rights by site', () => {
  it('add up: a plant has the higher of its own role and the role everywhere', () => {
    const lead: Rights = { everywhere: 'operator', plants: { '7': 'analyst', '9': 'viewer' } };
    expect(['7', '8', '9'].map((id) => roleAt(lead, id))).toEqual(['analyst', 'operator', 'operator']);
    expect(roleAt({ everywhere: null, plants: { '7': 'viewer' } }, '8')).toBeNull();
  });

  it('name the plants at which a role is held, or all of them', () => {
    const manager: Rights = { everywhere: null, plants: { '12': 'viewer', '7': 'analyst', '9': 'viewer' } };
    expect(plantsWith(manager, 'viewer')).toEqual(['7', '9', '12']);
    expect(plantsWith(manager, 'administrator')).toEqual([]);
    expect(plantsWith(rightsEverywhere('analyst'), 'operator')).toBeNull();
  });

  it('are told alike by plant, by role and by the highest role', () => {
    fc.assert(
      fc.property(rights, role, fc.integer({ min: 1, max: 9 }).map(String), (given, needed, plantId) => {
        const here = roleAt(given, plantId);
        const plants = plantsWith(given, needed);
        expect(here !== null && allows(here, needed)).toBe(plants === null || plants.includes(plantId));
        const highest = highestRole(given);
        if (here !== null) expect(allows(highest!, here)).toBe(true);
      }),
    );
  });
});
