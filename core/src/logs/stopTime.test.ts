import fc from 'fast-check';
import { stopTime } from './stopTime';

const HOUR = 3_600_000;

describe('stopTime', () => {
  it('counts overlapping stops of an asset once, for the one that began first', () => {
    const stops = [
      { assetId: '1', reason: 'Belt', start: 0, end: 2 * HOUR },
      { assetId: '1', reason: 'Sensor', start: HOUR, end: 3 * HOUR },
      { assetId: '2', reason: 'Sensor', start: HOUR, end: 2 * HOUR },
    ];
    expect(stopTime(stops, [{ start: 0, end: 10 * HOUR }], 10 * HOUR)).toEqual({
      totalMs: 4 * HOUR,
      byReason: [
        { reason: 'Belt', stops: 1, ms: 2 * HOUR },
        { reason: 'Sensor', stops: 2, ms: 2 * HOUR },
      ],
    });
  });

  it('cuts at the window and counts an open stop up to now', () => {
    const open = [{ assetId: '1', reason: 'Belt', start: -HOUR, end: null }];
    expect(stopTime(open, [{ start: 0, end: 10 * HOUR }], 3 * HOUR).totalMs).toBe(3 * HOUR);
  });

  it('gives parts that add up to the whole', () => {
    const stop = fc.record({
      assetId: fc.constantFrom('1', '2'),
      reason: fc.constantFrom('a', 'b', 'c'),
      start: fc.integer({ min: 0, max: 50 }),
      n: fc.integer({ min: 1, max: 20 }),
    });
    fc.assert(
      fc.property(fc.array(stop, { maxLength: 20 }), (list) => {
        const stops = list.map(({ n, ...rest }) => ({ ...rest, end: rest.start + n }));
        const { totalMs, byReason } = stopTime(stops, [{ start: 10, end: 60 }], 100);
        expect(byReason.reduce((sum, { ms }) => sum + ms, 0)).toBe(totalMs);
        const naive = new Set(
          stops.flatMap(({ assetId, start, end }) =>
            Array.from({ length: end - start }, (_, i) => start + i)
              .filter((t) => t >= 10 && t < 60)
              .map((t) => `${assetId} ${t}`),
          ),
        );
        expect(totalMs).toBe(naive.size);
      }),
    );
  });
});
