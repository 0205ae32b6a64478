import fc from 'fast-check';
import { portionsOf } from './portions';

describe('portions of days', () => {
  it('hold every day once and in order, few enough of them, with few enough samples unless it is a single day', () => {
    const day = fc.oneof(fc.integer({ min: 0, max: 2000 }), fc.constantFrom(86_400, 250_000, 400_000));
    fc.assert(
      fc.property(fc.array(day, { maxLength: 1200, size: 'max' }), (days) => {
        const portions = portionsOf(days, (n) => n);
        expect(portions.flat()).toEqual(days);
        for (const portion of portions) {
          expect(portion.length).toBeGreaterThan(0);
          expect(portion.length).toBeLessThanOrEqual(400);
          const samples = portion.reduce((a, b) => a + b, 0);
          if (portion.length > 1) expect(samples).toBeLessThanOrEqual(250_000);
        }
      }),
    );
  });
});
