import fc from 'fast-check';
import { byUrgency, FLAG_OUTCOMES, FLAG_PRIORITIES, statusOfOutcome, type Flag } from './flags';

const NOW = 1000;
const flag = (part: Partial<Flag>, i = 1): Flag =>
  ({ id: String(i), title: 'x', priority: 'normal', dueAt: 2000, closedAt: null, ...part }) as Flag;

describe('flags by urgency', () => {
  it('puts late ones first, the longest late in front, whatever their priority', () => {
    const order = [
      flag({ title: 'low, due', priority: 'low' }),
      flag({ title: 'high, due', priority: 'high' }),
      flag({ title: 'late', dueAt: 900, priority: 'high' }),
      flag({ title: 'longest late', dueAt: 100, priority: 'low' }),
      flag({ title: 'normal, due' }),
    ].sort(byUrgency(NOW));
    expect(order.map(({ title }) => title)).toEqual([
      'longest late',
      'late',
      'high, due',
      'normal, due',
      'low, due',
    ]);
  });

  it('is an order: it does not depend on how the list came', () => {
    const any = fc.record({
      priority: fc.constantFrom(...FLAG_PRIORITIES),
      dueAt: fc.integer({ min: 0, max: 2000 }),
      closedAt: fc.constantFrom(null, 500),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 12 }), (parts) => {
        const flags = parts.map(flag);
        const back = [...flags].reverse().sort(byUrgency(NOW));
        expect(back).toEqual(flags.sort(byUrgency(NOW)));
      }),
    );
  });

  it('closes as not a problem only where no fault was found', () => {
    expect(FLAG_OUTCOMES.filter((outcome) => statusOfOutcome(outcome) === 'notProblem')).toEqual(['noFault']);
  });
});
