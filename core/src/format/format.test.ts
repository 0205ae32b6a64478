import { ONE_HOUR, MINUTE } from '../testing/makeSeries';
import {
  decimalsFor,
  formatDate,
  formatGraduation,
  formatLength,
  formatMoment,
  formatMomentFrom,
  formatNumber,
  formatValue,
  formatWindow,
} from './format';

const THIN = '\u2009';
const ZONE = 'Europe/London';
const T = Date.UTC(2026, 10, 19, 6, 40);

describe('format', () => {
  it('writes numbers with separators, a true minus and no minus zero', () => {
    expect(formatNumber(1071.6, 2)).toBe('1,071.60');
    expect(formatNumber(-3.14, 1)).toBe('\u22123.1');
    expect(formatNumber(-0.001, 1)).toBe('0.0');
    expect(formatNumber(Infinity, 1)).toBe('–');
  });

  it('writes very large and very small numbers with powers of ten', () => {
    expect(formatNumber(1_979_166_666_667, 0)).toBe(`1.98${THIN}×${THIN}10¹²`);
    expect(formatNumber(-2e-9, 9)).toBe(`\u22122${THIN}×${THIN}10⁻⁹`);
    expect(formatNumber(9_999_999_999, 0)).toBe('9,999,999,999');
    expect(formatNumber(0, 2)).toBe('0.00');
    expect(formatGraduation(1.5e12)).toBe(`1.5${THIN}×${THIN}10¹²`);
    expect(formatGraduation(-12.5)).toBe('\u221212.5');
  });

  it('sets a thin space before the unit, and a dash for nothing', () => {
    expect(formatValue(212, '°C', 0)).toBe(`212${THIN}°C`);
    expect(formatValue(null, '°C', 0)).toBe('–');
  });

  it('says lengths of time in their two largest units', () => {
    expect(formatLength(40_000)).toBe(`40${THIN}s`);
    expect(formatLength(130 * MINUTE)).toBe(`2${THIN}h 10${THIN}min`);
    expect(formatLength(50 * ONE_HOUR)).toBe(`2${THIN}days 2${THIN}h`);
  });

  it('says where a clock is that shows another time than the own one', () => {
    expect(formatMomentFrom(T, ZONE, ZONE)).toBe('Thu 19 Nov, 06:40');
    // In winter London is on UTC, in summer it is not.
    expect(formatMomentFrom(T, ZONE, 'UTC')).toBe('Thu 19 Nov, 06:40');
    expect(formatMomentFrom(Date.UTC(2026, 6, 2, 6), ZONE, 'UTC')).toBe('Thu 2 Jul, 07:00 in London');
    expect(formatMomentFrom(T, 'America/New_York', ZONE)).toBe('Thu 19 Nov, 01:40 in New York');
  });

  it('says moments and windows in local time', () => {
    expect(formatMoment(T, ZONE)).toBe('Thu 19 Nov, 06:40');
    expect(formatDate(T, ZONE, Date.UTC(2027, 1, 1))).toBe('Thu 19 Nov 2026');
    expect(formatWindow(Date.UTC(2026, 10, 14), T, ZONE)).toBe('Sat 14 – Thu 19 Nov, 06:40');
    expect(formatWindow(Date.UTC(2026, 10, 14), Date.UTC(2026, 10, 15), ZONE)).toBe('Sat 14 Nov');
    expect(formatWindow(T - ONE_HOUR, T, ZONE)).toBe('Thu 19 Nov, 05:40 – 06:40');
  });

  it('chooses decimals by the size of a scale', () => {
    expect(decimalsFor(0, 6)).toBe(2);
    expect(decimalsFor(0, 250)).toBe(0);
    expect(decimalsFor(0, 0.04)).toBe(4);
  });
});
