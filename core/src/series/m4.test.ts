import fc from 'fast-check';
import { m4 } from './m4';
import { seriesOf } from './series';

describe('m4', () => {
  it('keeps first, lowest, highest and last of each column, as Jugel et al. (VLDB 2014) define it', () => {
    const series = seriesOf([0, 1, 2, 3, 4, 10, 11], [5, 9, 1, 7, 6, 3, 3]);
    expect(Array.from(m4(series, 0, 20, 2).t)).toEqual([0, 1, 2, 4, 10, 11]);
  });

  it('loses no column minimum or maximum, and never gives more than four a column', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ noNaN: true, min: -1e6, max: 1e6 }), { minLength: 1, maxLength: 400 }),
        fc.integer({ min: 1, max: 30 }),
        (values, columns) => {
          const series = seriesOf(
            values.map((_, i) => i),
            values,
          );
          const thin = m4(series, 0, values.length, columns);
          const columnOf = (t: number): number => Math.floor((t * columns) / values.length);
          const group = (t: ArrayLike<number>, v: ArrayLike<number>): Map<number, number[]> => {
            const groups = new Map<number, number[]>();
            Array.from(t).forEach((at, i) =>
              groups.set(columnOf(at), [...(groups.get(columnOf(at)) ?? []), v[i]]),
            );
            return groups;
          };
          const all = group(series.t, series.v);
          const kept = group(thin.t, thin.v);
          expect([...kept.keys()]).toEqual([...all.keys()]);
          for (const [column, numbers] of all) {
            const few = kept.get(column)!;
            expect(few.length).toBeLessThanOrEqual(4);
            expect(Math.min(...few)).toBe(Math.min(...numbers));
            expect(Math.max(...few)).toBe(Math.max(...numbers));
            expect(few[0]).toBe(numbers[0]);
            expect(few[few.length - 1]).toBe(numbers[numbers.length - 1]);
          }
        },
      ),
    );
  });

  it('gives the samples a plain grouping gives, for uneven times, gaps, bad samples and any stretch', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 5000 }), { maxLength: 300 }),
        fc.array(fc.oneof(fc.constant(NaN), fc.integer({ min: -5, max: 5 })), {
          minLength: 300,
          maxLength: 300,
        }),
        fc.integer({ min: 0, max: 2000 }),
        fc.integer({ min: 1, max: 4000 }),
        fc.integer({ min: 1, max: 60 }),
        (times, values, from, length, columns) => {
          const t = times.sort((a, b) => a - b);
          const v = values.slice(0, t.length);
          const to = from + length;
          const groups = new Map<number, number[]>();
          t.forEach((at, i) => {
            if (at < from || at >= to || Number.isNaN(v[i])) return;
            const column = Math.floor((at - from) * (columns / length));
            groups.set(column, [...(groups.get(column) ?? []), i]);
          });
          const wanted = [...groups.values()].flatMap((inside) => {
            const by = (better: (a: number, b: number) => boolean): number =>
              inside.reduce((best, i) => (better(v[i], v[best]) ? i : best));
            const four = [inside[0], by((a, b) => a < b), by((a, b) => a > b), inside[inside.length - 1]];
            return [...new Set(four)].sort((a, b) => a - b);
          });
          const thin = m4(seriesOf(t, v), from, to, columns);
          expect([...thin.t]).toEqual(wanted.map((i) => t[i]));
          expect([...thin.v]).toEqual(wanted.map((i) => v[i]));
        },
      ),
      { numRuns: 300 },
    );
  });

  it('leaves bad samples out', () => {
    expect(Array.from(m4(seriesOf([0, 1], [NaN, 2]), 0, 2, 1).v)).toEqual([2]);
  });

  it('refuses a plot without columns or length', () => {
    expect(() => m4(seriesOf([], []), 0, 10, 0)).toThrow(RangeError);
    expect(() => m4(seriesOf([], []), 10, 10, 5)).toThrow(RangeError);
  });
});
