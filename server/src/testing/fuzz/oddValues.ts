import fc, { type Arbitrary } from 'fast-check';

/*
 * Values that nobody should send and somebody will. Ranges are those of PostgreSQL's types (manual, chapter
 * 8) and of dates.
 */

const BIGINT_MAX = '9223372036854775807';

export const oddText: Arbitrary<string> = fc.oneof(
  fc.constantFrom(
    '',
    ' ',
    'a\u0000b',
    '\ud800',
    'x\udfff',
    '\u202eright to left',
    '__proto__',
    "'; drop table person; --",
    '%00',
    '../../etc/passwd',
    '=1+1',
    '<script>alert(1)</script>',
    'x'.repeat(5000),
    '\n\r\t',
    '\ufeff',
    '1e999',
    'NaN',
    'null',
  ),
  fc.string({ unit: 'binary', maxLength: 40 }),
  fc.string({ maxLength: 400 }),
);

export const oddNumber: Arbitrary<number> = fc.oneof(
  fc.constantFrom(
    0,
    -0,
    -1,
    0.5,
    2 ** 31,
    -(2 ** 31) - 1,
    2 ** 53,
    2 ** 63,
    -(2 ** 63),
    1e18,
    1e300,
    -1e300,
    5e-324,
    8.64e15,
    -8.64e15,
    8.64e15 + 1,
  ),
  fc.integer(),
  fc.double({ noNaN: true }),
);

/** Ids, mostly existing ones, since every table counts from 1. */
export const someId: Arbitrary<string> = fc.oneof(
  { weight: 10, arbitrary: fc.integer({ min: 1, max: 3 }).map(String) },
  { weight: 6, arbitrary: fc.integer({ min: 1, max: 40 }).map(String) },
  {
    weight: 1,
    arbitrary: fc.constantFrom('0', '-1', '1.5', '01', '9'.repeat(18), '9'.repeat(19), BIGINT_MAX, ''),
  },
);

/** Times as text: real days, typing errors, the ends of the range that can be stored. */
export const someDate: Arbitrary<string> = fc.oneof(
  { weight: 4, arbitrary: fc.integer({ min: 0, max: 800 }).map(dateAgo) },
  {
    weight: 3,
    arbitrary: fc.constantFrom(
      '0000-00-00',
      '0000-01-01',
      '0202-01-01',
      '1500-01-01',
      '1900-02-29',
      '2026-02-30',
      '2026-13-01',
      '2199-12-31',
      '9999-12-31',
      '+275760-09-13',
      '-004713-01-01',
    ),
  },
);

function dateAgo(days: number): string {
  return new Date(Date.UTC(2026, 10, 28) - days * 86_400_000).toISOString().slice(0, 10);
}

export const someMoment: Arbitrary<number> = fc.oneof(
  { weight: 4, arbitrary: fc.integer({ min: 0, max: 60 * 86_400 }).map((s) => Date.now() - s * 1000) },
  { weight: 1, arbitrary: fc.constantFrom(Date.UTC(202, 0, 1), Date.UTC(2199, 11, 31), -62_198_755_200_000) },
  { weight: 2, arbitrary: oddNumber },
);

/** Anything that JSON can say. */
export const anyJson: Arbitrary<unknown> = fc.oneof(
  fc.constantFrom<unknown>(null, true, {}, [], [null], [[]], { a: 1 }),
  oddText,
  oddNumber,
  someDate,
  someMoment,
  fc.jsonValue({ maxDepth: 3, stringUnit: 'binary' }),
);
