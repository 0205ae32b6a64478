import Decimal from 'decimal.js';
import fc from 'fast-check';
import { above, makeCondition } from '../testing/makeCondition';
import { ONE_DAY, ONE_HOUR, MINUTE, minutely } from '../testing/makeSeries';
import { seriesOf, sliceSeries, type Series } from '../series/series';
import {
  INITIAL_CONDITION,
  isActive,
  takenUpTo,
  type AlarmCondition,
  type ConditionState,
} from './condition';
import { runCondition, runWithHistory } from './runCondition';
import { historyStart, lookBackMs } from './signal';

const RULE = makeCondition(above(205, 4));

const told = (rule: AlarmCondition, series: Series, until?: number): string[] =>
  runCondition(rule, series, INITIAL_CONDITION, until).changes.map(({ kind, t }) => `${kind} ${t / MINUTE}`);
const kinds = (rule: AlarmCondition, values: number[]): string[] => told(rule, minutely(values));

describe('a limit', () => {
  it('raises above it, not on it, and returns only beyond the deadband', () => {
    expect(kinds(RULE, [200, 205, 206, 203, 201.5, 201])).toEqual(['raise 2', 'return 5']);
  });

  it('does not chatter inside the deadband', () => {
    expect(kinds(RULE, [206, 204, 206, 204, 206])).toEqual(['raise 0']);
  });

  it('is watched from below likewise', () => {
    const below = makeCondition({ kind: 'limit', side: 'below', limit: 5, deadband: 1 });
    expect(kinds(below, [6, 5, 4, 5.5, 6])).toEqual(['raise 2', 'return 4']);
  });

  it('that says "at or above" raises on it, and without a deadband returns only below it', () => {
    const from = (limit: number, deadband: number) =>
      makeCondition({ kind: 'limit', side: 'atOrAbove', limit, deadband });
    expect(kinds(from(205, 0), [204.9, 205, 205, 204.9])).toEqual(['raise 1', 'return 3']);
    expect(kinds(from(205, 4), [205, 201.1, 201])).toEqual(['raise 0', 'return 2']);
    expect(kinds(from(0, 0), [-1, 0, -1])).toEqual(['raise 1', 'return 2']);
    const low = makeCondition({ kind: 'limit', side: 'atOrBelow', limit: 0.3, deadband: 0 });
    expect(kinds(low, [0.4, 0.1 + 0.2, 0.31])).toEqual(['raise 1', 'return 2']);
  });

  it('is passed, or reached, exactly as decimals say: against decimal.js', () => {
    const cents = fc.integer({ min: -500, max: 500 });
    fc.assert(
      fc.property(fc.array(cents, { minLength: 1, maxLength: 9 }), cents, (terms, at) => {
        const sum = terms.reduce((total, each) => total + each / 100, 0);
        const exact = Decimal.sum(...terms.map((each) => new Decimal(each).div(100)));
        const limit = at / 100;
        const trips = (side: 'above' | 'atOrAbove' | 'below' | 'atOrBelow'): boolean =>
          kinds(makeCondition({ kind: 'limit', side, limit, deadband: 0 }), [sum]).length > 0;
        // A sum of nothing has no first 12 digits to agree in.
        fc.pre(!exact.isZero() || at !== 0 || sum === 0);
        expect([trips('above'), trips('atOrAbove'), trips('below'), trips('atOrBelow')]).toEqual([
          exact.gt(limit),
          exact.gte(limit),
          exact.lt(limit),
          exact.lte(limit),
        ]);
      }),
    );
  });

  it('is not moved by samples of bad quality', () => {
    expect(kinds(RULE, [206, NaN, 206])).toEqual(['raise 0']);
  });
});

describe('delays', () => {
  it('wait, and are forgotten when the value comes back', () => {
    const delayed = { ...RULE, onDelayMs: 3 * MINUTE };
    expect(kinds(delayed, [206, 206, 204, 206, 206, 206, 206])).toEqual(['raise 6']);
  });

  it('hold a return likewise', () => {
    expect(kinds({ ...RULE, offDelayMs: 2 * MINUTE }, [206, 200, 206, 200, 200, 200])).toEqual([
      'raise 0',
      'return 5',
    ]);
  });

  it('start again after a gap nobody measured', () => {
    const delayed = { ...RULE, onDelayMs: 15 * MINUTE };
    expect(told(delayed, seriesOf([MINUTE, 30 * MINUTE, 36 * MINUTE], [210, 210, 210]))).toEqual([]);
    expect(
      told(
        delayed,
        seriesOf(
          [1, 6, 11, 16].map((m) => m * MINUTE),
          [210, 210, 210, 210],
        ),
      ),
    ).toEqual(['raise 16']);
  });
});

describe('hours in which a rule watches', () => {
  // 1 June 2026, a Monday, 22:00 in London is 21:00 UTC.
  const evening = Date.UTC(2026, 5, 1, 20, 58);
  const inHours: AlarmCondition = {
    ...RULE,
    hours: { kind: 'clock', from: '06:00', to: '22:00' },
  };
  const at = (m: number): number => (evening + m * MINUTE) / MINUTE;

  it('let an alarm return when they end, and raise it again when they begin', () => {
    const series = seriesOf(
      [0, 1, 2, 3, 8 * 60 + 2, 8 * 60 + 3].map((m) => evening + m * MINUTE),
      [210, 210, 210, 210, 210, 210],
    );
    expect(told(inHours, series)).toEqual([`raise ${at(0)}`, `return ${at(2)}`, `raise ${at(482)}`]);
  });

  it('raise it the moment they begin, by the value that holds then', () => {
    // The last sample before 06:00 came five minutes earlier; the next comes an hour later, back to normal.
    const held = { ...inHours, maxGapMs: 10 * MINUTE };
    const series = seriesOf([evening + 477 * MINUTE, evening + 540 * MINUTE], [210, 190]);
    expect(told(held, series)).toEqual([`raise ${at(482)}`, `return ${at(540)}`]);
    // Nobody can know after more than the longest allowed gap, nor is a good value raised.
    const late = seriesOf([evening + 471 * MINUTE, evening + 540 * MINUTE], [210, 190]);
    expect(told(held, late)).toEqual([]);
    expect(told(held, seriesOf([evening + 477 * MINUTE], [190]), evening + 490 * MINUTE)).toEqual([]);
    // A delay runs from then on.
    const delayed = { ...held, onDelayMs: 3 * MINUTE };
    const samples = seriesOf(
      [477, 483, 484, 486].map((m) => evening + m * MINUTE),
      [210, 210, 210, 210],
    );
    expect(told(delayed, samples)).toEqual([`raise ${at(486)}`]);
  });

  it('raise it without any further sample', () => {
    const { state } = runCondition(inHours, seriesOf([evening + 480 * MINUTE], [210]));
    expect(state).toMatchObject({ phase: 'normal', wakeAt: evening + 482 * MINUTE });
    const { changes } = runCondition(inHours, seriesOf([], []), state, evening + 483 * MINUTE);
    expect(changes).toEqual([{ kind: 'raise', t: evening + 482 * MINUTE, value: 210 }]);
  });

  it('end an alarm though no sample comes any more', () => {
    const series = seriesOf([evening], [210]);
    expect(told(inHours, series, evening + MINUTE)).toEqual([`raise ${at(0)}`]);
    expect(told(inHours, series, evening + 3 * MINUTE)).toEqual([`raise ${at(0)}`, `return ${at(2)}`]);
  });

  it('forget a delay that was running', () => {
    const delayed = { ...inHours, onDelayMs: 3 * MINUTE, maxGapMs: ONE_DAY };
    const series = seriesOf(
      [0, 482, 484, 486].map((m) => evening + m * MINUTE),
      [210, 210, 210, 210],
    );
    expect(told(delayed, series)).toEqual([`raise ${at(486)}`]);
  });
});

describe('live and Rehearsal', () => {
  const tests: AlarmCondition[] = [
    { ...RULE, onDelayMs: 2 * MINUTE, offDelayMs: MINUTE },
    makeCondition({ kind: 'outside', low: 198, high: 206, deadband: 1 }),
    makeCondition({
      kind: 'change',
      side: 'either',
      limit: 4,
      inPercent: true,
      overMs: 3 * MINUTE,
      deadband: 1,
    }),
    makeCondition({ kind: 'silence', forMs: 4 * MINUTE }),
    makeCondition(
      { kind: 'silence', forMs: 4 * MINUTE },
      { hours: { kind: 'clock', from: '00:20', to: '00:50' } },
    ),
    makeCondition(
      { kind: 'consumption', limit: 4000, per: 'hour', pace: true },
      { reading: { kind: 'amount', intervalMs: MINUTE, rollover: null } },
    ),
    makeCondition(
      { kind: 'consumption', limit: 20, per: 'hour', pace: false },
      { reading: { kind: 'register', intervalMs: MINUTE, rollover: null } },
    ),
    makeCondition(
      { kind: 'runRules', rules: [1, 2, 3, 5], point: 'sample' },
      { model: { kind: 'chart', centre: 205, sigma: 3 } },
    ),
    makeCondition(
      { kind: 'runRules', rules: [1, 2], point: 'hour' },
      { model: { kind: 'chart', centre: 205, sigma: 1 } },
    ),
    { ...RULE, hours: { kind: 'clock', from: '00:10', to: '00:40' } },
  ];

  it('find the same, however the samples are cut into batches and the time between them is looked at', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...tests),
        fc.array(
          fc.record({ v: fc.integer({ min: 195, max: 215 }), wait: fc.constantFrom(1, 1, 1, 2, 6, 30) }),
          {
            minLength: 1,
            maxLength: 80,
          },
        ),
        fc.array(fc.integer({ min: 0, max: 80 }), { maxLength: 6 }),
        (condition, steps, cuts) => {
          let at = ONE_HOUR;
          const t = steps.map(({ wait }) => (at += wait * MINUTE));
          const series = seriesOf(
            t,
            steps.map(({ v }) => v),
          );
          const end = at + ONE_HOUR;
          const whole = runCondition(condition, series, INITIAL_CONDITION, end);
          let state = INITIAL_CONDITION;
          const changes = [];
          const edges = [...new Set(cuts.map((i) => t[Math.min(i, t.length - 1)]))].sort((a, b) => a - b);
          for (const [i, edge] of [...edges, end].entries()) {
            // After half of the batches the timers are evaluated just before the next sample.
            const next = t.find((each) => each >= edge) ?? end;
            const from = condition.test.kind === 'change' ? 0 : i === 0 ? 0 : edges[i - 1];
            const run = runCondition(
              condition,
              sliceSeries(series, from, edge),
              state,
              i % 2 ? -Infinity : Math.min(next, end),
            );
            state = run.state;
            changes.push(...run.changes);
          }
          const last = runCondition(condition, seriesOf([], []), state, end);
          expect([...changes, ...last.changes]).toEqual(whole.changes);
          expect(isActive(last.state)).toBe(isActive(whole.state));
        },
      ),
      { numRuns: 400 },
    );
  });

  it('are left alone by time alone until the condition wakes', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...tests),
        fc.array(fc.integer({ min: 195, max: 215 }), { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 0, max: 48 * 60 }),
        (condition, values, minutes) => {
          const t = values.map((_, i) => ONE_HOUR + i * MINUTE);
          const { state } = runCondition(condition, seriesOf(t, values));
          const until = Math.min(t[t.length - 1] + minutes * MINUTE, state.wakeAt ?? Infinity);
          expect(runCondition(condition, seriesOf([], []), state, until).changes).toEqual([]);
        },
      ),
      { numRuns: 400 },
    );
    // And silence is found at its wake-up time.
    const silence = makeCondition({ kind: 'silence', forMs: 4 * MINUTE });
    const { state } = runCondition(silence, seriesOf([ONE_HOUR], [200]));
    expect(state.wakeAt).toBe(ONE_HOUR + 4 * MINUTE);
    const found = runCondition(silence, seriesOf([], []), state, state.wakeAt! + 1);
    expect(found.changes.map(({ kind, t }) => [kind, t])).toEqual([['raise', ONE_HOUR + 4 * MINUTE]]);
    expect(found.state.wakeAt).toBeUndefined();
  });

  it('stand the same in whatever order and however often the samples arrive', () => {
    const arrival = fc.record({
      values: fc.array(fc.integer({ min: 195, max: 215 }), { minLength: 2, maxLength: 40 }),
      order: fc.array(fc.nat({ max: 39 }), { maxLength: 60 }),
    });
    fc.assert(
      fc.property(fc.constantFrom(...tests), arrival, (condition, { values, order }) => {
        const start = 5 * ONE_HOUR;
        const at = (i: number): number => start + (i + 1) * 3 * MINUTE;
        const now = at(values.length) + ONE_HOUR;
        const stored = new Map<number, number>();
        const series = (from: number): Series => {
          const t = [...stored.keys()].filter((each) => each >= from).sort((a, b) => a - b);
          return seriesOf(
            t,
            t.map((each) => stored.get(each)!),
          );
        };
        const context = historyStart(condition, start);
        const again = () => runWithHistory(condition, series(context), context, start, now).state;
        let state: ConditionState = again();
        // Random arrivals first, with repeats, then everything that has not arrived yet.
        for (const i of [...order.filter((each) => each < values.length), ...values.keys()]) {
          const known = stored.get(at(i)) === values[i];
          stored.set(at(i), values[i]);
          if (known) continue;
          const late = at(i) <= takenUpTo(state);
          const after = state.seen + 1 - lookBackMs(condition);
          state = late ? again() : runCondition(condition, series(after), state, now).state;
        }
        expect(isActive(state)).toBe(isActive(again()));
        expect(state.seen).toBe(at(values.length - 1));
      }),
      { numRuns: 300 },
    );
  });
});
