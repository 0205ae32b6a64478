import fc from 'fast-check';
import { resolveWindow } from './window';
import { type WindowSpec } from './windowSpec';
import { shiftWindow } from './shiftWindow';

const iso = (t: number): string => new Date(t).toISOString().slice(0, 16);
const NOW = Date.UTC(2026, 2, 31, 10, 20);

describe('shiftWindow', () => {
  it.each<[WindowSpec, number, string, string]>([
    [{ kind: 'toDate', unit: 'month' }, -1, '2026-02-01T00:00', '2026-03-01T00:00'],
    [{ kind: 'toDate', unit: 'year' }, 1, '2027-01-01T00:00', '2028-01-01T00:00'],
    [{ kind: 'periods', count: 7, unit: 'day', current: true }, -1, '2026-03-18T00:00', '2026-03-25T00:00'],
    [{ kind: 'rolling', count: 24, unit: 'hour' }, -1, '2026-03-29T10:20', '2026-03-30T10:20'],
    // Between two firsts of months it goes by months, whatever their length.
    [{ kind: 'absolute', start: '2026-01-01', end: '2026-02-01' }, 1, '2026-02-01T00:00', '2026-03-01T00:00'],
    [{ kind: 'absolute', start: '2026-01-05', end: '2026-01-08' }, 2, '2026-01-11T00:00', '2026-01-14T00:00'],
  ])('of %j by %p is %s to %s', (spec, step, start, end) => {
    const shifted = shiftWindow(spec, step, NOW, 'UTC');
    expect([iso(shifted.start), iso(shifted.end)]).toEqual([start, end]);
  });

  it('stays at local midnight over a change of clocks', () => {
    // British clocks go forward on 29 March 2026: that day has 23 hours.
    const { start, end } = shiftWindow(
      { kind: 'absolute', start: '2026-03-28', end: '2026-03-29' },
      1,
      NOW,
      'Europe/London',
    );
    expect([iso(start), iso(end)]).toEqual(['2026-03-29T00:00', '2026-03-29T23:00']);
  });

  it('comes back after a step there and one back, and leaves no gap between neighbours', () => {
    const spec: fc.Arbitrary<WindowSpec> = fc.oneof(
      fc.record({
        kind: fc.constant('periods' as const),
        count: fc.integer({ min: 1, max: 12 }),
        unit: fc.constantFrom(
          'hour' as const,
          'day' as const,
          'week' as const,
          'month' as const,
          'quarter' as const,
        ),
        current: fc.boolean(),
      }),
      fc.record({
        kind: fc.constant('toDate' as const),
        unit: fc.constantFrom('day' as const, 'month' as const, 'year' as const),
      }),
    );
    const zone = fc.constantFrom('UTC', 'Europe/London', 'America/New_York', 'Asia/Kathmandu');
    fc.assert(
      fc.property(spec, zone, fc.integer({ min: -5, max: 5 }), (window, where, step) => {
        const here = shiftWindow(window, step, NOW, where);
        const next = shiftWindow(window, step + 1, NOW, where);
        expect(next.start).toBe(here.end);
        const own = resolveWindow(window, NOW, where);
        expect(shiftWindow(window, 0, NOW, where).start).toBe(own.start);
      }),
    );
  });
});
