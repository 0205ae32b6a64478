import fc from 'fast-check';
import { mergeSamples, sortSamples, undoMerge, type Merged, type MergeChange } from './mergeSamples';
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

/** What is kept of a merge. */
function changeOf({ added, corrections }: Merged): MergeChange {
  const t = corrections.map((each) => each.t);
  return {
    added,
    before: {
      ...seriesOf(
        t,
        corrections.map((each) => each.before),
      ),
      q: Uint8Array.from(corrections, (each) => each.qualityBefore),
    },
    after: {
      ...seriesOf(
        t,
        corrections.map((each) => each.after),
      ),
      q: Uint8Array.from(corrections, (each) => each.qualityAfter),
    },
  };
}

describe('undoMerge', () => {
  const anySeries = fc
    .array(
      fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: -5, max: 5 }), fc.constantFrom(0, 0, 1)),
      {
        maxLength: 80,
      },
    )
    .map((rows) =>
      sortSamples(
        rows.map(([t]) => t),
        rows.map(([, v]) => v),
        rows.map(([, , q]) => q),
      ),
    );

  it('gives back what was there before', () => {
    fc.assert(
      fc.property(anySeries, anySeries, (stored, incoming) => {
        const merged = mergeSamples(stored, incoming);
        const undone = undoMerge(merged.series, changeOf(merged));
        expect(undone.series).toEqual({ ...stored, q: stored.q });
        expect(undone).toMatchObject({ removed: merged.added.t.length, kept: 0 });
        expect(undone.corrections.map(({ after }) => after)).toEqual(
          merged.corrections.map(({ before }) => before),
        );
      }),
    );
  });

  it('leaves what came later, and counts what it did not touch', () => {
    fc.assert(
      fc.property(anySeries, anySeries, anySeries, (stored, incoming, later) => {
        const merged = mergeSamples(stored, incoming);
        const undone = undoMerge(mergeSamples(merged.series, later).series, changeOf(merged));
        expect(undone.removed + undone.corrections.length + undone.kept).toBe(
          merged.added.t.length + merged.corrections.length,
        );
        const before = new Map(Array.from(merged.series.t, (t, i) => [t, merged.series.v[i]]));
        const after = new Map(Array.from(undone.series.t, (t, i) => [t, undone.series.v[i]]));
        later.t.forEach((t, i) => {
          if (before.get(t) !== later.v[i]) expect(after.get(t)).toBe(later.v[i]);
        });
      }),
    );
  });
});
