import fc from 'fast-check';
import Papa from 'papaparse';
import { decodeText } from './decodeText';
import { parseDuration } from './durationText';
import { isBlankCell, parseNumber, readSignedNumber, recogniseDecimal } from './numberText';
import { MAX_ROW_LENGTH, splitRows } from './splitRows';
import { fittingTimeFormats, parseTimeCell, plainIso, type Century, type TimeFormat } from './timeFormat';

describe('decodeText', () => {
  const bytes = (...parts: (number | string)[]): Uint8Array =>
    Uint8Array.from(
      parts.flatMap((part) => (typeof part === 'number' ? [part] : [...Buffer.from(part, 'utf8')])),
    );

  it('reads UTF-8 with and without a mark, UTF-16 and Windows-1252', () => {
    expect(decodeText(bytes('Größe'))).toEqual({ text: 'Größe', encoding: 'UTF-8' });
    expect(decodeText(bytes(0xef, 0xbb, 0xbf, 'a')).text).toBe('a');
    expect(decodeText(bytes(0xff, 0xfe, 0x61, 0))).toEqual({ text: 'a', encoding: 'UTF-16 LE' });
    expect(decodeText(bytes('t', 0xe9))).toEqual({ text: 'té', encoding: 'Windows-1252' });
  });

  it('refuses bytes that are not text', () => {
    expect(() => decodeText(bytes('PK', 3, 4, 0, 0))).toThrow('not a text file');
  });
});

describe('parseNumber', () => {
  it.each([
    ['1,234.5', '.', 1234.5],
    ['1.234,5', ',', 1234.5],
    ["12'000", '.', 12000],
    ['12 000,25', ',', 12000.25],
    ['−3.5', '.', -3.5],
    ['1e-3', '.', 0.001],
    ['.5', '.', 0.5],
  ] as const)('reads %s with decimal sign %s', (text, sign, value) => {
    expect(parseNumber(text, sign)).toBe(value);
  });

  it.each(['1,23,4', '12 kg', '1.2.3', 'abc', '1,5'])('does not take %s for a number with a dot', (text) => {
    expect(parseNumber(text, '.')).toBeNaN();
  });

  it('gives back every number it writes, under both signs', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (value) => {
        expect(parseNumber(String(value), '.')).toBe(value + 0);
        expect(parseNumber(String(value).replace('.', ','), ',')).toBe(value + 0);
      }),
    );
  });

  it('knows blank cells, and which decimal sign a column uses', () => {
    expect(['', ' - ', 'n/a', 'NaN'].every(isBlankCell)).toBe(true);
    expect(isBlankCell('0')).toBe(false);
    expect(recogniseDecimal(['1,5', '2,25', '-'])).toBe(',');
    expect(recogniseDecimal(['1', '2'])).toBe('.');
  });
});

describe('parseTimeCell', () => {
  it('reads instants and wall-clock times', () => {
    expect(parseTimeCell('2026-11-19T06:40:00+01:00', 'iso')).toEqual({
      kind: 'instant',
      t: Date.UTC(2026, 10, 19, 5, 40),
    });
    expect(parseTimeCell('19.11.2026 06:40', 'day-first')).toEqual({
      kind: 'wall',
      wallMs: Date.UTC(2026, 10, 19, 6, 40),
    });
    expect(parseTimeCell('11/19/2026 6:40 pm', 'month-first')).toEqual({
      kind: 'wall',
      wallMs: Date.UTC(2026, 10, 19, 18, 40),
    });
    expect(parseTimeCell('1763534400', 'epoch-seconds')).toEqual({ kind: 'instant', t: 1_763_534_400_000 });
  });

  it('does not take dates that do not exist', () => {
    for (const text of ['2026-02-29', '2026-13-01', '2026-01-01 25:00', '2026-01-01 10:60', '']) {
      expect(parseTimeCell(text, 'iso')).toEqual({ kind: 'unreadable' });
    }
  });

  it('does not guess between day-first and month-first', () => {
    expect(fittingTimeFormats(['03/04/2026', '05/06/2026'])).toEqual(['day-first', 'month-first']);
    expect(fittingTimeFormats(['03/04/2026', '25/06/2026', '26/06/2026'])).toEqual(['day-first']);
    expect(fittingTimeFormats(['7', '12'])).toEqual([]);
  });

  const wall = (text: string, format: TimeFormat, century: Century | null = null): string | null => {
    const cell = parseTimeCell(text, format, century);
    if (cell.kind === 'unreadable') return null;
    return cell.kind === 'wall'
      ? new Date(cell.wallMs).toISOString().slice(0, 16)
      : new Date(cell.t).toISOString();
  };

  it.each<[string, TimeFormat, string | null]>([
    ['19 Nov 2026 06:40', 'iso', '2026-11-19T06:40'],
    ['19. November 2026', 'iso', '2026-11-19T00:00'],
    ['Donnerstag, 19. November 2026, 06:40', 'iso', '2026-11-19T06:40'],
    ['19 de noviembre de 2026', 'iso', '2026-11-19T00:00'],
    ['Mar 3 2026', 'iso', '2026-03-03T00:00'],
    ['20261119T064000Z', 'iso', '2026-11-19T06:40:00.000Z'],
    ['2026-323', 'iso', '2026-11-19T00:00'],
    ['Thu Nov 19 06:40:00 UTC 2026', 'iso', '2026-11-19T06:40:00.000Z'],
    ['19.11.2026 24:00', 'day-first', '2026-11-20T00:00'],
    ['19.11.2026 06:40 MEZ', 'day-first', '2026-11-19T05:40:00.000Z'],
    ['2026-11-19T06:40:00+01:00[Europe/Berlin]', 'iso', '2026-11-19T05:40:00.000Z'],
    ['31.06.2026', 'day-first', null],
    ['Q4 2026', 'period', '2026-10-01T00:00'],
    ['Q4 2026', 'iso', null],
    ['2026-W47', 'period', '2026-11-16T00:00'],
    ['KW 47/2026', 'period', '2026-11-16T00:00'],
    ['11.2026', 'period', '2026-11-01T00:00'],
    ['2026', 'period', '2026-01-01T00:00'],
    ['1763534400000000', 'epoch-mixed', '2025-11-19T06:40:00.000Z'],
    ['1763534400', 'iso', '2025-11-19T06:40:00.000Z'],
    ['44518', 'serial-1904', '2025-11-19T00:00'],
    ['0202-01-01', 'day-first', null],
  ])('reads %s as %s', (text, format, expected) => {
    expect(wall(text, format)).toBe(expected);
  });

  it('reads years of two digits only in a century that was chosen', () => {
    expect(wall('19/11/26', 'day-first')).toBeNull();
    expect(wall('19/11/26', 'day-first', '1900')).toBe('1926-11-19T00:00');
    expect(wall('19-Nov-75', 'iso', 'sliding')).toBe('1975-11-19T00:00');
  });

  it('reads plain ISO times as the reader of written times does', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1500-01-01'), max: new Date('2900-01-01'), noInvalidDate: true }),
        (date) => {
          const text = date.toISOString();
          expect(plainIso(text)).toEqual({ kind: 'instant', t: date.getTime() });
          expect(parseTimeCell(` ${text}`, 'day-first')).toEqual(plainIso(text));
        },
      ),
    );
  });
});

describe('readSignedNumber', () => {
  it.each<[string, number, string | null]>([
    ['12 %', 12, '%'],
    ['€ 1,250.50', 1250.5, '€'],
    ['CHF -3', -3, 'CHF'],
    ['(35.2)', -35.2, null],
    ['4.5-', -4.5, null],
    ["1'250", 1250, null],
    ['21 °C', 21, '°C'],
    ['3.5e3 m3/h', 3500, 'm3/h'],
  ])('reads %s', (text, value, sign) => {
    expect(readSignedNumber(text, '.')).toEqual({ value, sign });
  });

  it.each(['(5', '--5', '-(5)', 'Line 2', '12 Main Street 5', '1.2.3', '€ 5 %'])(
    'does not take %s for a number',
    (text) => {
      expect(readSignedNumber(text, '.')).toBeNull();
    },
  );
});

describe('parseDuration', () => {
  it.each([
    ['01:30:00', 5400],
    ['1:30', 5400],
    ['-00:00:10', -10],
    ['PT1H30M', 5400],
    ['P1DT1S', 86_401],
    ['90', NaN],
    ['01:75', NaN],
  ])('reads %s as %d s', (text, seconds) => {
    expect(parseDuration(text)).toBe(seconds);
  });
});

describe('splitRows', () => {
  it('never cuts inside a quoted cell (RFC 4180, section 2, rule 6)', () => {
    expect(splitRows('a,"b\nc"\nd,"e')).toEqual({ whole: 'a,"b\nc"\n', rest: 'd,"e' });
  });

  it('gives the same rows piece by piece as at once', () => {
    const cell = fc
      .string({ maxLength: 6 })
      .map((text) => `"${text.replace(/\r/g, '').replace(/"/g, '""')}"`);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 20 }),
        fc.integer({ min: 1, max: 30 }),
        (rows, size) => {
          const text = `${rows.map((cells) => cells.join(',')).join('\n')}\n`;
          const all = Papa.parse<string[]>(text, { delimiter: ',' }).data.slice(0, -1);
          const parts: string[][] = [];
          let rest = '';
          for (let at = 0; at < text.length; at += size) {
            const piece = splitRows(rest + text.slice(at, at + size));
            rest = piece.rest;
            if (piece.whole)
              parts.push(
                ...Papa.parse<string[]>(piece.whole, { delimiter: ',', newline: '\n' }).data.slice(0, -1),
              );
          }
          expect(parts).toEqual(all);
        },
      ),
    );
  });

  it('refuses a row without end', () => {
    expect(() => splitRows('x'.repeat(MAX_ROW_LENGTH + 1))).toThrow('longer than 4,000,000 characters');
  });
});
