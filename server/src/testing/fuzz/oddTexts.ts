import fc, { type Arbitrary } from 'fast-check';
import { encodeColumns } from '@vivid-beacon/core';
import { oddText, someId } from './oddValues';

const PART_TIME = Date.UTC(2026, 0, 1);

/* Bodies that are text: calendars, exposition text, lines of JSON; nearly right, with odd parts. */

const icalTime = fc.constantFrom(
  ':20261225T080000Z',
  ';VALUE=DATE:20261225',
  ';TZID=Europe/London:20261225T080000',
  ':99991231T235959Z',
  ';VALUE=DATE:99991231',
  ';VALUE=DATE:02020101',
  ':garbage',
  ':',
  ';VALUE=DATE:20261399',
  ';VALUE=PERIOD:20260101T000000Z/P1D',
);
const icalRule = fc.constantFrom(
  'RRULE:FREQ=YEARLY',
  'RRULE:FREQ=SECONDLY',
  'RRULE:FREQ=MINUTELY;BYMONTH=2;BYMONTHDAY=30',
  'RRULE:FREQ=DAILY;COUNT=1000000000',
  'RRULE:FREQ=WEEKLY;UNTIL=99991231;BYDAY=MO',
  'RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30',
  'RRULE:nonsense',
  'RDATE;VALUE=DATE:20260101,20270101,99991231',
  'EXDATE:garbage',
  'DURATION:P100000W',
  'DURATION:PT-1S',
  'RECURRENCE-ID:20261225T080000Z',
);

const RIGHT_CALENDAR = [
  'BEGIN:VCALENDAR',
  'BEGIN:VEVENT',
  'DTSTART;VALUE=DATE:20261224',
  'RRULE:FREQ=YEARLY',
  'END:VEVENT',
  'END:VCALENDAR',
].join('\r\n');

/** RFC 5545, with dates and rules that no calendar has. */
export const someCalendar: Arbitrary<string> = fc.oneof(
  fc.constant(RIGHT_CALENDAR),
  fc
    .array(
      fc.record({
        start: fc.option(icalTime),
        end: fc.option(icalTime),
        rules: fc.array(icalRule, { maxLength: 2 }),
      }),
      { maxLength: 4 },
    )
    .map((events) =>
      [
        'BEGIN:VCALENDAR',
        'VERSION:2.0',
        ...events.flatMap(({ start, end, rules }) => [
          'BEGIN:VEVENT',
          'UID:a',
          'SUMMARY:Holiday',
          ...(start === null ? [] : [`DTSTART${start}`]),
          ...(end === null ? [] : [`DTEND${end}`]),
          ...rules,
          'END:VEVENT',
        ]),
        'END:VCALENDAR',
      ].join('\r\n'),
    ),
  fc.constantFrom('', 'BEGIN:VCALENDAR', 'BEGIN:VCALENDAR\r\nEND:VCALENDAR', 'BEGIN:VEVENT\r\nEND:VEVENT'),
  oddText,
);

const number = fc.constantFrom('1', '-0.5', '1e999', 'NaN', '+Inf', '0x1', '', '1 2', '99999999999999999999');
const labels = fc.oneof(
  fc.constantFrom(
    '',
    '{}',
    '{metric="a"}',
    '{a="b",c="d"}',
    '{a="\\n"}',
    '{a="b"',
    '{a=b}',
    '{="x"}',
    '{a="\u0000"}',
  ),
  fc
    .integer({ min: 90, max: 3000 })
    .map((n) => `{${Array.from({ length: n }, (_, i) => `l${i}="x"`).join(',')}}`),
);

/** Exposition text, with and without its end mark. */
export const someExposition: Arbitrary<string> = fc
  .tuple(
    fc.array(
      fc
        .tuple(fc.constantFrom('washed', 'a:b', '9x', '# TYPE a gauge', '# HELP', ''), labels, number, number)
        .map(([name, given, value, time]) => `${name}${given} ${value} ${time}`),
      { maxLength: 8 },
    ),
    fc.constantFrom('# EOF\n', '', '# EOF\nmore 1\n'),
  )
  .map(([lines, end]) => `${lines.join('\n')}\n${end}`);

const sample = fc.record(
  {
    metric: fc.oneof(fc.constantFrom('plant.bed-temperature', 'fuzz'), oddText),
    t: fc.oneof(
      fc.constantFrom<unknown>(Date.now(), '2026-11-27T10:00:00Z', '0202-01-01T00:00:00Z', 'now', null, {}),
      fc.double(),
    ),
    v: fc.oneof(fc.constantFrom<unknown>(1, '1', null, [], 1e308), fc.double()),
    q: fc.constantFrom<unknown>('good', 'bad', 'fine', 7, null),
    unit: fc.constantFrom<unknown>('°C', 'kg', '\u0000', 3),
  },
  { requiredKeys: ['metric'] },
);

export const somePush: Arbitrary<object> = fc.oneof(
  fc.array(sample, { maxLength: 20 }).map((samples) => ({ samples })),
  fc
    .array(
      fc.record({ metric: oddText, t: fc.array(fc.integer()), v: fc.array(fc.double()), unit: oddText }),
      {
        maxLength: 4,
      },
    )
    .map((series) => ({ series })),
);

export const someLines: Arbitrary<string> = fc
  .array(
    fc.oneof(
      sample.map((each) => JSON.stringify(each)),
      oddText,
    ),
    { maxLength: 20 },
  )
  .map((lines) => lines.join('\n'));

/**
 * Parts of a file in the layout of core/src/exports/columns.ts, with a head that does not match what follows.
 */
export const somePart: Arbitrary<Uint8Array> = fc.oneof(
  fc.constant(
    encodeColumns({ seq: 0, metricIds: ['2'], told: [] }, [
      ['t 0', [PART_TIME]],
      ['v 0', [1]],
    ]),
  ),
  fc.uint8Array({ maxLength: 200 }),
  fc
    .record({
      seq: fc.constantFrom<unknown>(0, 1, -1, 1e300, 'x'),
      metricIds: fc.array(someId, { maxLength: 3 }),
      told: fc.constantFrom<unknown>([], null, [
        { kind: 'refused', line: 1, column: '', value: '\u0000', reason: '' },
      ]),
      columns: fc.constantFrom<unknown>(
        [],
        null,
        [{ name: 't 0', length: 1e9 }],
        [{ name: 't 0', length: -1 }],
        [{}],
      ),
    })
    .map((head) => {
      const text = new TextEncoder().encode(JSON.stringify(head));
      const bytes = new Uint8Array(4 + text.length + 64);
      new DataView(bytes.buffer).setUint32(0, text.length, true);
      bytes.set(text, 4);
      return bytes;
    }),
);
