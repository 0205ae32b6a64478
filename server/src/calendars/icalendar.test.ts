import { randomBytes } from 'node:crypto';
import { onTestServer } from '../testing/testServer';
import { holidaysOfCalendar } from './icalendar';

/* RFC 5545: VEVENT in section 3.6.1, DTSTART in 3.8.2.4, DTEND in 3.8.2.2, RRULE in 3.8.5.3. */

const NOW = Date.UTC(2026, 10, 19);
const calendar = (...events: readonly (readonly string[])[]): string =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    ...events.flatMap((lines) => ['BEGIN:VEVENT', 'UID:1', ...lines, 'END:VEVENT']),
    'END:VCALENDAR',
  ].join('\r\n');
const daysOf = (...lines: string[]): string[] =>
  holidaysOfCalendar(calendar(lines), 'Europe/London', NOW).map(({ date }) => date);

describe('days of an event', () => {
  it('are those it touches: DTEND of an all-day event is not part of it, no end is one day', () => {
    expect(daysOf('DTSTART;VALUE=DATE:20261224', 'DTEND;VALUE=DATE:20261226')).toEqual([
      '2026-12-24',
      '2026-12-25',
    ]);
    expect(daysOf('DTSTART;VALUE=DATE:20261224')).toEqual(['2026-12-24']);
    expect(daysOf('DTSTART;VALUE=DATE:20261224', 'DURATION:P2D')).toEqual(['2026-12-24', '2026-12-25']);
    // Half past eleven at night in winter to one in the morning.
    expect(daysOf('DTSTART:20261224T233000Z', 'DTEND:20261225T010000Z')).toEqual([
      '2026-12-24',
      '2026-12-25',
    ]);
  });

  it.each([
    [
      'an end in the far future',
      ['DTSTART;VALUE=DATE:20261224', 'DTEND;VALUE=DATE:99991231'],
      'between the years',
    ],
    ['an end years later', ['DTSTART;VALUE=DATE:20261224', 'DTEND;VALUE=DATE:20301231'], 'at most 400 days'],
    ['no start', ['SUMMARY:Works outing'], 'Event 1 (Works outing) needs a start'],
    ['a start that is no date', ['DTSTART:garbage'], 'needs a start that is a date, got garbage'],
    ['a month that there is not', ['DTSTART;VALUE=DATE:20261399'], 'needs a start that is a date'],
    ['a year that was mistyped', ['DTSTART;VALUE=DATE:02020101'], 'between the years'],
    ['a length of centuries', ['DTSTART;VALUE=DATE:20261224', 'DURATION:P100000W'], 'between the years'],
    ['a rule that cannot be read', ['DTSTART;VALUE=DATE:20261224', 'RRULE:FREQ=SECONDLY'], 'cannot be read'],
    ['minutes that come again', ['DTSTART:20261224T080000Z', 'RRULE:FREQ=MINUTELY'], 'repeats too often'],
  ])('are refused, with the event, for %s', (_name, lines, words) => {
    expect(() => daysOf(...lines)).toThrow(words);
  });

  it('are refused with the place of the event that is wrong', () => {
    const text = calendar(['DTSTART;VALUE=DATE:20261224'], ['SUMMARY:Lost']);
    expect(() => holidaysOfCalendar(text, 'Europe/London', NOW)).toThrow(
      expect.objectContaining({ path: 'event 2', status: 422 }),
    );
  });
});

describe('a calendar that is sent', () => {
  const { test, analyst } = onTestServer('analyst');
  const send = async (text: string): Promise<{ status: number; message: string }> => {
    const plant = await analyst.call<{ id: string }>('POST', '/api/assets', {
      name: `Plant ${randomBytes(3).toString('hex')}`,
      kind: 'plant',
      zone: 'Europe/London',
    });
    const response = await fetch(`${test.url}/api/calendars/${plant.body.id}/read`, {
      method: 'POST',
      headers: { ...analyst.headers(), 'content-type': 'text/calendar' },
      body: text,
    });
    const body = (await response.json()) as { error?: { message: string } };
    return { status: response.status, message: body.error?.message ?? '' };
  };

  it('is refused when it is empty', async () => {
    expect(await send('')).toEqual({ status: 422, message: 'The calendar file is empty.' });
  });

  it('is refused, and holds nobody else up, when the days of a rule cannot be found', async () => {
    const stuck = send(calendar(['DTSTART;VALUE=DATE:20261224', 'RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30']));
    let others = 0;
    let done = false;
    void stuck.then(() => (done = true));
    while (!done) {
      expect((await analyst.call('GET', '/api/assets')).status).toBe(200);
      others++;
    }
    expect(await stuck).toEqual({ status: 422, message: expect.stringContaining('cannot be found') });
    expect(others).toBeGreaterThan(20);
    // The next one is readable again.
    expect((await send(calendar(['DTSTART;VALUE=DATE:20261224']))).status).toBe(200);
  });
});
