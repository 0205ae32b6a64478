import { makeCondition } from '../testing/makeCondition';
import { MINUTE, minutely, ONE_HOUR } from '../testing/makeSeries';
import { seriesOf } from '../series/series';
import { courseLimits, type AlarmTest } from './alarmTest';
import { signalCourse } from './signalCourse';

const WINDOW = { start: 0, end: ONE_HOUR };
const courseOf = (test: AlarmTest, values: number[], kind: 'level' | 'amount' = 'level') => {
  const condition = makeCondition(test);
  const reading = { ...condition.reading, kind };
  return signalCourse({ condition: { ...condition, reading }, series: minutely(values) }, WINDOW, 600);
};

describe('the course that a limit lies on', () => {
  it('is that of the values where they are compared, also from below', () => {
    const test = { kind: 'limit', side: 'below', limit: 5, deadband: 0 } as const;
    expect(courseOf(test, [7, 4, 6])).toEqual({ t: [0, MINUTE, 2 * MINUTE], v: [7, 4, 6] });
  });

  it('is the change where a change is looked for, and what the period has used so far of a consumption', () => {
    const change = {
      kind: 'change',
      side: 'rise',
      limit: 3,
      inPercent: false,
      overMs: MINUTE,
      deadband: 0,
    } as const;
    expect(courseOf(change, [1, 5, 4]).v).toEqual([4, -1]);
    const used = { kind: 'consumption', limit: 3, per: 'hour', pace: false } as const;
    expect(courseOf(used, [1, 5, 4], 'amount').v).toEqual([1, 6, 10]);
    expect(courseLimits(used).map(({ value }) => value)).toEqual([3]);
  });

  it('is broken where nothing is known', () => {
    const condition = makeCondition({ kind: 'limit', side: 'above', limit: 5, deadband: 0 });
    const series = seriesOf([0, MINUTE, 50 * MINUTE], [1, 2, 3]);
    expect(signalCourse({ condition, series }, WINDOW, 600).v).toEqual([1, 2, null, 3]);
  });

  it('is none for a test that no number decides', () => {
    expect(courseLimits({ kind: 'silence', forMs: MINUTE })).toEqual([]);
  });
});
