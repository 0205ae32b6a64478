import { conversion, per, readUnit, sameDimension, times, ucumCode, writeUnit } from './unit';

describe('units', () => {
  it.each([
    ['kWh', 'kW.h'],
    ['°C', 'Cel'],
    ['m³/h', 'm3/h'],
    ['kWh/m²', 'kW.h/m2'],
    ['L/kg', 'L/kg'],
    ['bar', 'bar'],
    ['%', '%'],
    ['kg/(m²·d)', 'kg/m2/d'],
  ])('finds the UCUM code of %s', (written, code) => {
    expect(ucumCode(written)).toBe(code);
    expect(writeUnit(readUnit(written))).toBe(written);
  });

  it('keeps a word UCUM does not know as a unit of its own', () => {
    expect(ucumCode('reads/h')).toBeNull();
    expect(sameDimension(readUnit('reads'), readUnit('loads'))).toBe(false);
    expect(sameDimension(readUnit('reads/h'), readUnit('reads/min'))).toBe(true);
  });

  it('converts as the International System of Units defines (SI Brochure, 9th edition, table 8, from memory)', () => {
    expect(conversion(readUnit('kWh'), readUnit('MJ'))).toBeCloseTo(3.6, 12);
    expect(conversion(readUnit('h'), readUnit('s'))).toBe(3600);
    expect(conversion(readUnit('m³'), readUnit('L'))).toBeCloseTo(1000, 9);
    expect(conversion(readUnit('t/h'), readUnit('kg/s'))).toBeCloseTo(1000 / 3600, 12);
    expect(conversion(readUnit('bar'), readUnit('kPa'))).toBeCloseTo(100, 9);
    expect(conversion(readUnit('kWh'), readUnit('kg'))).toBeNull();
  });

  it('cancels equal parts and never rewrites what was chosen', () => {
    expect(writeUnit(times(per(readUnit('kWh'), readUnit('kg')), readUnit('kg')))).toBe('kWh');
    // Energy per volume is a pressure; the person wrote kWh/m³ and sees kWh/m³.
    expect(writeUnit(per(readUnit('kWh'), readUnit('m³')))).toBe('kWh/m³');
    expect(writeUnit(per(readUnit('kg'), readUnit('kg')))).toBe('');
  });
});
