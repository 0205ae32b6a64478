import { ringOf } from './shares';
import { bandOfTerciles, tercilesOf } from './terciles';

describe('ringOf', () => {
  const of = (...values: (number | null)[]) => values.map((value, i) => ({ value, name: String(i) }));

  it('cuts a whole into shares that fill the ring, the largest first, small ones together', () => {
    const ring = ringOf(of(1, 50, 1, 48))!;
    expect(ring.parts.map(({ of: { name } }) => name)).toEqual(['1', '3']);
    expect(ring.others).toMatchObject({ count: 2 });
    expect(ring.others!.share).toBeCloseTo(0.02, 12);
    const all = ringOf(of(2, 1, 1))!;
    expect(all.parts.map(({ share }) => share)).toEqual([0.5, 0.25, 0.25]);
    expect(all.parts.at(-1)!.to).toBeCloseTo(360, 9);
    expect(all.others).toBeNull();
  });

  it('keeps a lone small share under its own name', () => {
    expect(ringOf(of(99, 1))!.parts).toHaveLength(2);
  });

  it('is no ring with anything below zero, or with nothing', () => {
    expect(ringOf(of(5, -1))).toBeNull();
    expect(ringOf(of(0, null))).toBeNull();
  });
});

describe('thirds of a list', () => {
  it('say where each value stands, and nothing of lists too short or all alike', () => {
    expect(tercilesOf([0, 5, 9, null, 3])).toEqual([
      'lowest third',
      'middle third',
      'highest third',
      null,
      'middle third',
    ]);
    expect(tercilesOf([1, 2])).toBeNull();
    expect(tercilesOf([4, 4, 4])).toBeNull();
  });

  it('make the first draft of a band, cut where they are cut', () => {
    expect(bandOfTerciles([0, null, 45, 90])).toEqual({
      direction: 'lower',
      caution: 30,
      breach: 60,
      target: null,
    });
    expect(bandOfTerciles([0.001, 0.0021, 0.004])).toMatchObject({ caution: 0.002, breach: 0.003 });
    expect(bandOfTerciles([1, 2])).toBeNull();
  });
});
