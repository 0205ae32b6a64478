import fc from 'fast-check';
import { tenths } from './tenths';

describe('places in tenths', () => {
  it('are the nearest tenth, for any place on and off the page', () => {
    fc.assert(
      fc.property(fc.double({ min: -20_000, max: 20_000, noNaN: true }), (px) => {
        const text = tenths(px);
        expect(Math.abs(Number(text) - px)).toBeLessThanOrEqual(0.05 + 1e-9);
        expect(text).toMatch(/^-?\d+(\.\d)?$/);
      }),
    );
  });

  it('are the same when asked for again', () => {
    for (const px of [0, 0.04, 12.34, 4095.96, 4096, 9000.5])
      expect(tenths(px)).toBe(String(Math.round(px * 10) / 10));
    expect(tenths(12.34)).toBe(tenths(12.34));
  });
});
