import fc from 'fast-check';
import { mergeSamples, sortSamples } from './mergeSamples';
import { EMPTY_SERIES, seriesOf } from './series';

const anySamples = fc.array(fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: -5, max: 5 })), {
  maxLength: 80,
});

describe('mergeSamples', () => {
  it('ends the same whatever the batches: for each time the value given last holds', () => {
    fc.assert(
      fc.property(
        anySamples,
        fc.array(fc.integer({ min: 1, max: 20 }), { maxLength: 20 }),
        (samples, sizes) => {
          let stored = EMPTY_SERIES;
          let at = 0;
          for (const size of [...sizes, samples.length]) {
            const batch = samples.slice(at, at + size);
            at += size;
            stored = mergeSamples(
              stored,
              sortSamples(
                batch.map(([t]) => t),
                batch.map(([, v]) => v),
              ),
            ).series;
          }
          const naive = [...new Map(samples).entries()].sort((a, b) => a[0] - b[0]);
          expect(Array.from(stored.t)).toEqual(naive.map(([t]) => t));
          expect(Array.from(stored.v)).toEqual(naive.map(([, v]) => v + 0));
        },
      ),
    );
  });

  it('adds nothing the second time', () => {
    const batch = seriesOf([1, 2, 3], [10, 20, 30]);
    const again = mergeSamples(mergeSamples(EMPTY_SERIES, batch).series, batch);
    expect(again).toMatchObject({ unchanged: 3, corrections: [] });
    expect(again.added.t).toHaveLength(0);
  });

  it('keeps what a corrected sample said before', () => {
    const merged = mergeSamples(seriesOf([1, 2], [10, 20]), seriesOf([2, 3], [25, 30]));
    expect(merged.corrections).toEqual([{ t: 2, before: 20, after: 25, qualityBefore: 0, qualityAfter: 0 }]);
    expect(Array.from(merged.added.t)).toEqual([3]);
    expect(Array.from(merged.series.v)).toEqual([10, 25, 30]);
  });
});
