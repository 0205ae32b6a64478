import fc from 'fast-check';
import { DAY_MS } from '../time/lengths';
import { appendToDay, packDay, unpackDay } from './dayCodec';
import { seriesOf, sliceSeries } from './series';

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

  it('appends later samples with the bytes that packing all of them has, or says that it cannot', () => {
    const decimals = fc.integer({ min: -50_000, max: 50_000 }).map((n) => n / 10 ** (Math.abs(n) % 4));
    const someDay = fc
      .uniqueArray(
        fc.oneof(
          fc.nat(DAY_MS - 1),
          fc.nat(1439).map((m) => m * 60_000),
        ),
        { minLength: 2, maxLength: 120 },
      )
      .chain((times) =>
        fc.tuple(
          fc.constant(times.sort((a, b) => a - b).map((t) => DAY_START + t)),
          fc.array(decimals, { minLength: times.length, maxLength: times.length }),
          fc.integer({ min: 1, max: times.length - 1 }),
        ),
      );
    let appended = 0;
    fc.assert(
      fc.property(
        fc.oneof(
          someDay,
          anySamples
            .filter(({ t }) => t.length > 1)
            .map(({ t, v }) => [Array.from(t), Array.from(v), t.length >> 1] as [number[], number[], number]),
        ),
        ([t, v, cut]) => {
          const whole = packDay(seriesOf(t, v), DAY_START);
          const first = packDay(seriesOf(t.slice(0, cut), v.slice(0, cut)), DAY_START);
          const fresh = { ...seriesOf(t.slice(cut), v.slice(cut)), q: null };
          const tail = appendToDay(first, { t: t[cut - 1], v: v[cut - 1] }, fresh, DAY_START);
          if (!tail) {
            // Only because the encoding of the values changes, or is one that cannot be appended to.
            expect(first.values[0] === 64 || whole.values[0] !== first.values[0]).toBe(true);
            return;
          }
          appended++;
          expect(tail.n).toBe(whole.n);
          expect(Array.from(tail.times)).toEqual(Array.from(whole.times));
          expect([...first.values, ...tail.valuesTail]).toEqual(Array.from(whole.values));
        },
      ),
      { numRuns: 300 },
    );
    expect(appended).toBeGreaterThan(30);
  });

  it('does not append to a day with quality flags, nor times that do not follow', () => {
    const series = seriesOf([DAY_START, DAY_START + 1000], [1.5, 2.25]);
    const later = { ...seriesOf([DAY_START + 2000], [2]), q: null };
    const last = { t: DAY_START + 1000, v: 2.25 };
    const flagged = packDay({ ...series, q: Uint8Array.from([0, 1]) }, DAY_START);
    expect(appendToDay(flagged, last, later, DAY_START)).toBeNull();
    expect(
      appendToDay(packDay(series, DAY_START), last, { ...later, q: Uint8Array.from([1]) }, DAY_START),
    ).toBeNull();
    expect(() =>
      appendToDay(
        packDay(series, DAY_START),
        last,
        { ...sliceSeries(series, 0, Infinity), q: null },
        DAY_START,
      ),
    ).toThrow(RangeError);
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
