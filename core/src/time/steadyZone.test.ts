import { DateTime, IANAZone } from 'luxon';
import fc from 'fast-check';
import { steadyZone } from './steadyZone';

describe('a steady zone', () => {
  it('tells every moment as the library does, also around clock changes', () => {
    const change = Date.UTC(2026, 9, 25, 1);
    const moment = fc.oneof(
      fc.integer({ min: Date.UTC(1975, 0, 1), max: Date.UTC(2037, 0, 1) }),
      fc.integer({ min: change - 3_600_000, max: change + 3_600_000 }),
    );
    const zone = fc.constantFrom(
      'Europe/Berlin',
      'America/St_Johns',
      'Asia/Kathmandu',
      'Australia/Lord_Howe',
      'UTC',
    );
    fc.assert(
      fc.property(moment, zone, (t, name) => {
        const ours = DateTime.fromMillis(t, { zone: steadyZone(name) });
        const theirs = DateTime.fromMillis(t, { zone: IANAZone.create(name) });
        expect(ours.toISO()).toBe(theirs.toISO());
        expect(ours.startOf('day').toMillis()).toBe(theirs.startOf('day').toMillis());
        expect(ours.plus({ days: 1, hours: 5 }).toMillis()).toBe(
          theirs.plus({ days: 1, hours: 5 }).toMillis(),
        );
      }),
    );
  });

  it('is the same zone, and none for a name there is not', () => {
    expect(steadyZone('Europe/Berlin').equals(IANAZone.create('Europe/Berlin'))).toBe(true);
    expect(DateTime.fromMillis(0, { zone: steadyZone('Nowhere/Land') }).isValid).toBe(false);
  });
});
