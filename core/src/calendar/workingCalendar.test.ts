import { lengthOf } from '../time/intervals';
import { minutesOf, DEFAULT_CALENDAR, shiftSpans, workingTime } from './workingCalendar';
import { type WorkingCalendar } from '../schemas/calendar';
import { workingDuration } from './workingDuration';

const HOUR = 3_600_000;
const ZONE = 'Europe/London';
const OFFICE: WorkingCalendar = {
  ...DEFAULT_CALENDAR,
  shifts: [{ name: 'Day', days: [1, 2, 3, 4, 5], from: '09:00', to: '17:00' }],
  holidays: [{ date: '2026-11-25', name: 'Works outing' }],
};
/** Monday 23 November 2026, in winter time. */
const monday = (day: number, hour: number): number => Date.UTC(2026, 10, 23 + day, hour);

describe('workingTime', () => {
  it('leaves out nights, weekends and holidays', () => {
    const week = { start: monday(0, 0), end: monday(7, 0) };
    expect(lengthOf(workingTime(OFFICE, week, ZONE)) / HOUR).toBe(4 * 8);
  });

  it('is all time where there are no shifts, but for holidays', () => {
    const week = { start: monday(0, 0), end: monday(7, 0) };
    expect(lengthOf(workingTime(DEFAULT_CALENDAR, week, ZONE)) / HOUR).toBe(168);
    expect(lengthOf(workingTime({ ...OFFICE, shifts: [] }, week, ZONE)) / HOUR).toBe(144);
  });

  it('counts overlapping shifts once, and a night shift over a clock change with its real length', () => {
    const overlapping = {
      ...OFFICE,
      shifts: [...OFFICE.shifts, { ...OFFICE.shifts[0], from: '16:00', to: '18:00' }],
    };
    expect(lengthOf(workingTime(overlapping, { start: monday(0, 0), end: monday(1, 0) }, ZONE)) / HOUR).toBe(
      9,
    );
    const night = { ...DEFAULT_CALENDAR, shifts: [{ name: 'Night', days: [6], from: '22:00', to: '06:00' }] };
    const spring = { start: Date.UTC(2026, 2, 28), end: Date.UTC(2026, 2, 30) };
    const autumn = { start: Date.UTC(2026, 9, 24), end: Date.UTC(2026, 9, 26) };
    const [first] = shiftSpans(night, spring, ZONE);
    const [second] = shiftSpans(night, autumn, ZONE);
    expect([(first.end - first.start) / HOUR, (second.end - second.start) / HOUR]).toEqual([7, 9]);
  });

  it('reads only times of day', () => {
    expect([minutesOf('06:30'), minutesOf('24:00')]).toEqual([390, 1440]);
    expect(() => minutesOf('24:30')).toThrow('A time of day is written as 06:30');
    expect(() => minutesOf('6.30')).toThrow();
  });
});

describe('workingDuration', () => {
  const WORKING = workingTime(OFFICE, { start: monday(-30, 0), end: monday(30, 0) }, ZONE);
  const stopping = new Set(['Waiting for customer']);
  const at = (t: number, status: string) => ({ at: t, status });

  it('counts only our own statuses in working hours', () => {
    // Monday 16:00 to Tuesday 10:00; it was with the customer from 09:00 to 09:30 on Tuesday.
    const job = { start: monday(0, 16), end: monday(1, 10) };
    const history = [
      at(monday(0, 16), 'In work'),
      at(monday(1, 9), 'Waiting for customer'),
      at(monday(1, 9) + HOUR / 2, 'In work'),
    ];
    expect(workingDuration(job, history, stopping, WORKING, monday(4, 0)) / HOUR).toBe(1.5);
  });

  it('counts an open job up to now, over a holiday', () => {
    const job = { start: monday(1, 16), end: null };
    expect(workingDuration(job, [at(job.start, 'In work')], stopping, WORKING, monday(3, 10)) / HOUR).toBe(2);
    expect(workingDuration(job, [at(job.start, 'In work')], stopping, WORKING, job.start)).toBe(0);
  });
});
