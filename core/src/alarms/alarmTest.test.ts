import { METRIC_KINDS } from '../domain/metric';
import { isEscalationDue } from './escalation';
import {
  ALARM_TEST_KINDS,
  alarmTestLabel,
  alarmTestSchema,
  backWords,
  bandOfTest,
  firstTest,
  isFromBelow,
  limitOf,
  limitsOfTest,
  ruleEnding,
  SAMPLE_TESTS,
  silentAfterMs,
  testsOfMetric,
  testWords,
  unitOfLimit,
  withLimit,
  type AlarmTest,
} from './alarmTest';

const METRIC = { unit: '°C', decimals: 1, intervalMs: 60_000 };
const first = ALARM_TEST_KINDS.map((kind) => firstTest(kind, METRIC, 200));

describe('what an alarm rule can look for', () => {
  it.each(METRIC_KINDS)('has something for a %s, and silence for all', (kind) => {
    const tests = testsOfMetric(kind);
    expect(tests.length).toBeGreaterThan(1);
    expect(tests).toContain('silence');
    expect(tests[0]).not.toBe('silence');
  });

  it.each(first)('begins with what may be stored, and has words: $kind', (test) => {
    expect(alarmTestSchema.validateSync(test)).toEqual(test);
    expect(testWords(test, '°C', 1)).toMatch(/^[a-z0-9]/);
    expect(alarmTestLabel(test.kind)).toBeTruthy();
    expect(ruleEnding(test.kind)).toBeTruthy();
  });

  it.each(first)('takes another limit and nothing else, where it has one: $kind', (test) => {
    const limit = limitOf(test);
    const other = withLimit(test, 7);
    if (limit === null) expect(other).toBe(test);
    else expect(other).toEqual({ ...test, limit: 7 });
  });

  it.each(first)('moves a limit on the course to where it is put: $kind', (test) => {
    for (const { value, test: moved } of limitsOfTest(test)) {
      expect(moved(value)).toEqual(test);
      expect(alarmTestSchema.isValidSync(moved(value))).toBe(true);
    }
    // A limit that can be dragged on the course can be shown on it.
    expect(limitsOfTest(test).length > 0).toBe(bandOfTest(test) !== null);
  });

  it('is found by time alone only where samples cannot tell', () => {
    const byTime = first.filter((test) => silentAfterMs(test) !== null).map(({ kind }) => kind);
    expect([...SAMPLE_TESTS, ...byTime].sort()).toEqual([...ALARM_TEST_KINDS].sort());
    expect(byTime).toEqual(['silence']);
  });

  it('keeps the ends of a band apart', () => {
    const band: AlarmTest = { kind: 'outside', low: 3, high: 6, deadband: 0 };
    const [upper, lower] = limitsOfTest(band);
    expect(upper.test(1)).toMatchObject({ low: 3, high: 3 });
    expect(lower.test(9)).toMatchObject({ low: 6, high: 6 });
    expect(alarmTestSchema.isValidSync({ ...band, high: 3 })).toBe(false);
  });

  it.each([
    [{ kind: 'limit', side: 'below', limit: 5, deadband: 1 }, true, 'at or over 6.0 °C', '°C'],
    [{ kind: 'limit', side: 'above', limit: 5, deadband: 1 }, false, 'at or under 4.0 °C', '°C'],
    [
      { kind: 'baseline', side: 'below', limit: 4, deadband: 1 },
      false,
      'at 3.0 σ from the usual or less',
      'σ',
    ],
    [
      { kind: 'change', side: 'rise', limit: 5, inPercent: true, overMs: 60_000, deadband: 1 },
      false,
      'at a change of 4.0 % or less',
      '%',
    ],
    [{ kind: 'silence', forMs: 60_000 }, false, null, '°C'],
  ] as const)('tells its side, where it is back, and in what unit: %j', (test, below, back, unit) => {
    expect(isFromBelow(test)).toBe(below);
    expect(backWords(test, '°C', 1)?.replace(/\s/g, ' ') ?? null).toBe(back);
    expect(unitOfLimit(test, METRIC).unit).toBe(unit);
  });
});

describe('telling others of an alarm', () => {
  const alarm = { calledAt: 1000, reportedAt: null, afterMs: 500 };

  it('is due once the time to acknowledge is over, and once for each call', () => {
    expect(isEscalationDue(alarm, 1499)).toBe(false);
    expect(isEscalationDue(alarm, 1500)).toBe(true);
    expect(isEscalationDue({ ...alarm, reportedAt: 1600 }, 9000)).toBe(false);
    // It has been raised again since.
    expect(isEscalationDue({ ...alarm, reportedAt: 900 }, 1500)).toBe(true);
  });
});
