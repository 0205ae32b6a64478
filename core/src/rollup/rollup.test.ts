import fc from 'fast-check';
import * as ss from 'simple-statistics';
import { ONE_DAY, LEVEL, MINUTE, REGISTER, STATE } from '../testing/makeSeries';
import { HOUR_MS } from '../time/lengths';
import { seriesOf } from '../series/series';
import { emptyAggregates, mergeAggregates, OTHER_STATES } from '../summary/aggregates';
import { spansOfEdges, aggregate } from '../summary/aggregate';
import { valueOfAggregates } from '../summary/valueOf';
import { packRollup, unpackRollup } from './rollupCodec';
import {
  holdsThroughout,
  hoursOfQuarters,
  isEmptyRollup,
  QUARTERS_A_DAY,
  rollupDay,
  touchedStretch,
} from './rollupDay';

const anyDay = fc
  .uniqueArray(fc.integer({ min: 0, max: ONE_DAY - 1 }), { minLength: 1, maxLength: 120 })
  .chain((times) =>
    fc
      .array(fc.double({ noNaN: true, min: -1e6, max: 1e6 }), {
        minLength: times.length,
        maxLength: times.length,
      })
      .map((v) =>
        seriesOf(
          times.sort((a, b) => a - b),
          v,
        ),
      ),
  );

describe('rollups', () => {
  it('come back from their packed form to the last bit', () => {
    fc.assert(
      fc.property(anyDay, fc.constantFrom(LEVEL, REGISTER, STATE), (series, reading) => {
        const aggregates = rollupDay(series, reading, 0);
        const back = unpackRollup(packRollup(aggregates));
        for (const name of [
          'n',
          'sum',
          'min',
          'max',
          'first',
          'last',
          'm2',
          'heldMs',
          'area',
          'increase',
          'spanMs',
        ] as const) {
          aggregates[name].forEach((value, i) => expect(Object.is(back[name][i], value)).toBe(true));
        }
        expect([...back.stateMs.keys()].sort()).toEqual([...aggregates.stateMs.keys()].sort());
      }),
    );
  });

  it('give back only the columns that are wanted', () => {
    const aggregates = rollupDay(seriesOf([0, MINUTE], [1, 2]), LEVEL, 0);
    const few = unpackRollup(packRollup(aggregates), new Set(['area'] as const));
    expect([few.n[0], few.area[0], few.sum[0]]).toEqual([2, aggregates.area[0], 0]);
    expect(() => unpackRollup(new Uint8Array([9]))).toThrow('unknown layout');
  });

  it('joined over the day agree with the day taken at once, and with simple-statistics', () => {
    fc.assert(
      fc.property(anyDay, (series) => {
        const quarters = rollupDay(series, LEVEL, 0);
        const joined = emptyAggregates(1);
        for (let i = 0; i < QUARTERS_A_DAY; i++) mergeAggregates(joined, 0, quarters, i);
        const whole = aggregate(series, LEVEL, spansOfEdges([0, ONE_DAY]), 1);
        for (const name of ['n', 'min', 'max', 'first', 'last', 'heldMs'] as const) {
          expect(joined[name][0]).toBe(whole[name][0]);
        }
        const values = Array.from(series.v);
        const scale = Math.max(1, ...values.map(Math.abs));
        expect(joined.sum[0] / scale).toBeCloseTo(ss.sum(values) / scale, 6);
        if (values.length > 1) {
          const sd = valueOfAggregates(joined, 0, 'sd', 'level', ONE_DAY).value!;
          expect(sd / scale).toBeCloseTo(ss.sampleStandardDeviation(values) / scale, 6);
        }
      }),
    );
  });

  it('by the hour are those of the samples of each hour', () => {
    fc.assert(
      fc.property(anyDay, fc.constantFrom(LEVEL, REGISTER, STATE), (series, reading) => {
        const hours = hoursOfQuarters(rollupDay(series, reading, 0));
        const edges = Array.from({ length: 25 }, (_, i) => i * HOUR_MS);
        const direct = aggregate(series, reading, spansOfEdges(edges), 24);
        expect(hours.size).toBe(24);
        for (const name of ['n', 'min', 'max', 'first', 'last', 'heldMs'] as const) {
          expect([...hours[name]]).toEqual([...direct[name]]);
        }
        const scale = Math.max(1, ...Array.from(series.v, Math.abs));
        for (const name of ['sum', 'area', 'increase'] as const) {
          hours[name].forEach((value, i) => {
            expect(value / scale / ONE_DAY).toBeCloseTo(direct[name][i] / scale / ONE_DAY, 9);
          });
        }
        expect([...hours.stateMs.keys()].sort()).toEqual([...direct.stateMs.keys()].sort());
      }),
    );
  });

  it('add decimals as decimals, so that the last digit does not depend on how they came', () => {
    const aggregates = rollupDay(seriesOf([0, 1000, 2000], [0.1, 0.2, 0.3]), LEVEL, 0);
    expect(aggregates.sum[0]).toBe(0.6);
  });

  it('are kept only where something touches the day', () => {
    expect(isEmptyRollup(rollupDay(seriesOf([-ONE_DAY], [1]), LEVEL, 0))).toBe(true);
    expect(isEmptyRollup(rollupDay(seriesOf([-MINUTE], [1]), LEVEL, 0))).toBe(false);
  });

  it('are made again as far as a change reaches, and a register back to the reading before', () => {
    const change = { first: 1000, last: 2000 };
    expect(touchedStretch(LEVEL, change, 0, null)).toEqual({ start: 1000, end: 2000 + LEVEL.maxGapMs });
    expect(touchedStretch(LEVEL, change, 0, 5000)).toEqual({ start: 1000, end: 5000 });
    expect(touchedStretch(REGISTER, change, -ONE_DAY, 2 * ONE_DAY)).toEqual({
      start: -ONE_DAY,
      end: 2 * ONE_DAY,
    });
    expect(touchedStretch(REGISTER, change, -900 * ONE_DAY, null).start).toBe(1000);
    // However long a register is trusted, what comes after the next reading rests on that one.
    expect(touchedStretch({ ...REGISTER, maxGapMs: 900 * ONE_DAY }, change, null, 5000).end).toBe(5000);
  });

  it.each([0, 3, 777])(
    'come back from inside a larger buffer, as database drivers hand them out: at %s',
    (at) => {
      const t = Array.from({ length: 96 }, (_, i) => i * 15 * MINUTE);
      const day = rollupDay(
        seriesOf(
          t,
          t.map((_, i) => i % 3),
        ),
        STATE,
        0,
      );
      const packed = packRollup(day);
      const pool = Buffer.alloc(at + packed.length + 20, 7);
      pool.set(packed, at);
      const back = unpackRollup(pool.subarray(at, at + packed.length));
      expect([...back.stateMs].sort()).toEqual([...day.stateMs].sort());
      expect([...back.stateMs.keys()].sort()).toEqual([0, 1, 2]);
    },
  );

  it('keep what are no state codes together, however many values there are', () => {
    const t = Array.from({ length: 2000 }, (_, i) => i * MINUTE * 0.5);
    const day = rollupDay(
      seriesOf(
        t,
        t.map((_, i) => (i % 2 === 0 ? 1 : i + 0.5)),
      ),
      STATE,
      0,
    );
    expect([...day.stateMs.keys()]).toEqual([1, OTHER_STATES]);
    const total = [...day.stateMs.values()].flatMap((each) => [...each]).reduce((a, b) => a + b, 0);
    expect(total).toBe(day.heldMs.reduce((a, b) => a + b, 0));
    expect(unpackRollup(packRollup(day)).stateMs).toEqual(day.stateMs);
  });

  it('are the same for every day through which one value holds', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(LEVEL, REGISTER, STATE),
        fc.double({ min: -1e6, max: 1e6, noNaN: true }).map((v) => (v === 0 ? 0 : v)),
        fc.integer({ min: 0, max: 3 * ONE_DAY }),
        fc.integer({ min: 0, max: 5 }),
        (kind, v, ago, day) => {
          const reading = { ...kind, maxGapMs: 4 * ONE_DAY };
          const value = reading.kind === 'state' ? Math.round(v) : v;
          const tallied = (at: number) =>
            packRollup(rollupDay(seriesOf([-ago], [value]), reading, at * ONE_DAY));
          fc.pre(ago > 0 && holdsThroughout(reading, -ago, null, day * ONE_DAY));
          expect(tallied(day)).toEqual(tallied(0));
        },
      ),
    );
  });
});
