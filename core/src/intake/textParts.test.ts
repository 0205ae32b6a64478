import fc from 'fast-check';
import Papa from 'papaparse';
import { decodeText } from './decodeText';
import { isBlankCell, parseNumber, recogniseDecimal } from './numberText';
import { LONGEST_ROW, splitRows } from './splitRows';
import { fittingTimeFormats, parseTimeCell } from './timeFormat';

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

  it('refuses an empty file and one that is not text', () => {
    expect(() => decodeText(new Uint8Array())).toThrow('empty (0 bytes)');
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
    expect(() => splitRows('x'.repeat(LONGEST_ROW + 1))).toThrow('longer than 4,000,000 characters');
  });
});
