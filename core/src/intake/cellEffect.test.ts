import { partEffect, timeEffect } from './cellEffect';

const LAYOUT = { decimal: ',', timeFormat: 'day-first' } as const;

describe('timeEffect', () => {
  it('shows how a cell is read under each order, for a person to judge', () => {
    expect(timeEffect('03/04/2026', 'day-first')).toBe('Fri 3 Apr 2026');
    expect(timeEffect('03/04/2026', 'month-first')).toBe('Wed 4 Mar 2026');
    expect(timeEffect('03/04/2026', 'iso')).toBeNull();
    expect(timeEffect('2026-11-19T06:40:00Z', 'iso')).toBe('Thu 19 Nov 2026 06:40 UTC');
  });
});

describe('partEffect', () => {
  it('says what the example of a column would be under a part', () => {
    expect(partEffect('value', '1.234,5', LAYOUT)).toBe('is 1234.5');
    expect(partEffect('value', '01:30', LAYOUT)).toBe('is 5400 s');
    expect(partEffect('time', '2026-11-19', LAYOUT)).toBe('is Thu 19 Nov 2026');
    expect(partEffect('month', 'März', LAYOUT)).toBe('gives the month März');
  });

  it.each([
    ['value', 'Bed temperature'],
    ['time', 'Bed temperature'],
    ['hour', '25'],
    ['year', '26'],
    ['clock', 'soon'],
  ] as const)('says of %s that %s cannot be it', (part, cell) => {
    expect(partEffect(part, cell, LAYOUT)).toBeNull();
  });
});
