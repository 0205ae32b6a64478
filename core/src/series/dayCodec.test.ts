import fc from 'fast-check';
import { DAY_MS } from '../time/lengths';
import { packDay, unpackDay } from './dayCodec';
import { seriesOf } from './series';

const DAY_START = Date.UTC(2026, 10, 19);

/** Any samples of one day: odd steps, NaN, −0, infinities, long fractions, money-like decimals. */
const anySamples = fc
  .uniqueArray(fc.integer({ min: 0, max: DAY_MS - 1 }), { maxLength: 200 })
  .chain((times) =>
    fc
      .array(
        fc.oneof(
          fc.double(),
          fc.integer({ min: -1_000_000, max: 1_000_000 }).map((n) => n / 100),
          fc.constantFrom(NaN, -0, Infinity, -Infinity, 0.1 + 0.2, 2 ** 53, 1e-9),
        ),
        { minLength: times.length, maxLength: times.length },
      )
      .map((values) =>
        seriesOf(
          times.sort((a, b) => a - b).map((t) => DAY_START + t),
          values,
        ),
      ),
  );

describe('packDay', () => {
  it('gives every sample back to the last bit', () => {
    fc.assert(
      fc.property(anySamples, (series) => {
        const back = unpackDay(packDay(series, DAY_START), DAY_START);
        expect(Array.from(back.t)).toEqual(Array.from(series.t));
        series.v.forEach((value, i) => expect(Object.is(back.v[i], value)).toBe(true));
      }),
    );
  });

  it('needs at most 2.5 bytes a sample for a minute of two decimals', () => {
    const t = Array.from({ length: 1440 }, (_, i) => DAY_START + i * 60_000);
    const v = t.map((_, i) => Math.round((20 + 5 * Math.sin(i / 200) + ((i * 7919) % 13) / 50) * 100) / 100);
    const packed = packDay(seriesOf(t, v), DAY_START);
    expect((packed.times.length + packed.values.length) / 1440).toBeLessThan(2.5);
  });

  it('refuses times outside the day, not increasing or not whole', () => {
    expect(() => packDay(seriesOf([DAY_START - 1], [1]), DAY_START)).toThrow(RangeError);
    expect(() => packDay(seriesOf([DAY_START + 5, DAY_START + 5], [1, 2]), DAY_START)).toThrow(RangeError);
    expect(() => packDay(seriesOf([DAY_START + 0.5], [1]), DAY_START)).toThrow(RangeError);
  });

  it('refuses bytes that are cut short or of an unknown layout', () => {
    const packed = packDay(seriesOf([DAY_START, DAY_START + 1000], [1.5, 2.25]), DAY_START);
    expect(() => unpackDay({ ...packed, values: packed.values.slice(0, 1) }, DAY_START)).toThrow(RangeError);
    expect(() => unpackDay({ ...packed, times: new Uint8Array([99]) }, DAY_START)).toThrow(/unknown layout/);
    expect(() => unpackDay({ ...packed, values: new Uint8Array([50]) }, DAY_START)).toThrow(/unknown layout/);
  });
});
