import { closest } from './closest';

describe('closest', () => {
  it('finds the entry that was probably meant', () => {
    const keys = ['quayside.ironer-2.bed-temperature', 'quayside.ironer-2.gas', 'upper-weir.steam'];
    expect(closest('quayside.ironer2.bedtemperature', keys)).toBe(keys[0]);
    expect(closest('quayside.ironer-2.bed-temperatur', keys)).toBe(keys[0]);
  });

  it('says nothing rather than something far-fetched', () => {
    expect(closest('pressure', ['quayside.ironer-2.gas'])).toBeNull();
    expect(closest('', ['a'])).toBeNull();
  });
});
