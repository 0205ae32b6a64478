import fc from 'fast-check';
import { lengthOf, intersectionOf, unionOf } from '../time/intervals';
import { logNotes } from './logNotes';

const HOUR = 3_600_000;
const day = (n: number) => ({ start: n * 24 * HOUR, end: (n + 1) * 24 * HOUR });
const stop = (path: string, reason: string, from: number, to: number | null) => ({
  path: path.split('/'),
  assetId: path.split('/').at(-1)!,
  reason,
  start: from * HOUR,
  end: to === null ? null : to * HOUR,
});

describe('what the logs say of assets by stretch of time', () => {
  const STOPS = [
    stop('1/2', 'Belt', 1, 3),
    stop('1/2', 'Jam', 2, 4),
    stop('1/3', 'Jam', 23, 26),
    stop('1/3', 'No staff', 30, null),
  ];
  const REMARKS = [{ path: ['1', '3'], start: 25 * HOUR, end: 26 * HOUR, text: 'New felt' }];

  it('counts the time of a stop once, by reason, in each stretch, with what lies below', () => {
    const stretches = [[day(0)], [day(1)]];
    const assets = ['2', '1', '9'].map((assetId) => ({ assetId, stretches }));
    expect(logNotes(assets, STOPS, REMARKS, 32 * HOUR)).toEqual([
      {
        assetId: '2',
        span: 0,
        stoppedMs: 3 * HOUR,
        reasons: [
          { reason: 'Belt', ms: 2 * HOUR },
          { reason: 'Jam', ms: HOUR },
        ],
        open: false,
        remarks: [],
      },
      {
        assetId: '1',
        span: 0,
        stoppedMs: 4 * HOUR,
        reasons: [
          { reason: 'Belt', ms: 2 * HOUR },
          { reason: 'Jam', ms: 2 * HOUR },
        ],
        open: false,
        remarks: [],
      },
      {
        assetId: '1',
        span: 1,
        stoppedMs: 4 * HOUR,
        reasons: [
          { reason: 'Jam', ms: 2 * HOUR },
          { reason: 'No staff', ms: 2 * HOUR },
        ],
        open: true,
        remarks: ['New felt'],
      },
    ]);
  });

  it('adds up over stretches that follow one another to the time stopped of each machine', () => {
    const times = fc.tuple(
      fc.integer({ min: 0, max: 70 }),
      fc.integer({ min: 1, max: 20 }),
      fc.constantFrom('2', '3'),
    );
    fc.assert(
      fc.property(fc.array(times, { maxLength: 12 }), (given) => {
        const stops = given.map(([from, length, id]) => stop(`1/${id}`, `r${from % 3}`, from, from + length));
        const stretches = [[day(0)], [day(1)], [day(2)]];
        const notes = logNotes([{ assetId: '1', stretches }], stops, [], 72 * HOUR);
        const expected = ['2', '3'].map((id) =>
          lengthOf(
            intersectionOf(
              unionOf(
                stops.filter((each) => each.assetId === id).map(({ start, end }) => ({ start, end: end! })),
              ),
              [{ start: 0, end: 72 * HOUR }],
            ),
          ),
        );
        expect(notes.reduce((sum, { stoppedMs }) => sum + stoppedMs, 0)).toBe(expected[0] + expected[1]);
        for (const { stoppedMs, reasons } of notes)
          expect(reasons.reduce((sum, { ms }) => sum + ms, 0)).toBe(stoppedMs);
      }),
    );
  });

  it('counts only the pieces of a stretch, each once, and remarks that touch one', () => {
    const hours = (from: number, to: number) => ({ start: from * HOUR, end: to * HOUR });
    const assets = [{ assetId: '1', stretches: [[hours(2, 3), hours(24, 25)], [hours(5, 20)]] }];
    expect(logNotes(assets, STOPS, REMARKS, 32 * HOUR)).toEqual([
      {
        assetId: '1',
        span: 0,
        stoppedMs: 2 * HOUR,
        // From two to three the belt had stopped it already.
        reasons: [
          { reason: 'Belt', ms: HOUR },
          { reason: 'Jam', ms: HOUR },
        ],
        open: false,
        remarks: [],
      },
    ]);
    const touching = [{ assetId: '3', stretches: [[hours(25, 26)]] }];
    expect(logNotes(touching, [], REMARKS, 32 * HOUR)[0].remarks).toEqual(['New felt']);
  });
});
