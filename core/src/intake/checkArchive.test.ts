import { strToU8, zipSync } from 'fflate';
import { checkArchive } from './checkArchive';

const book = { 'xl/workbook.xml': strToU8('<workbook/>') };

describe('checkArchive', () => {
  it('lets a spreadsheet through', () => {
    expect(() => checkArchive(zipSync(book))).not.toThrow();
  });

  it('refuses an archive that unpacks to far more than it seems, before it fills the memory', () => {
    const bomb = zipSync({ ...book, 'xl/worksheets/sheet1.xml': new Uint8Array(4_000_000) });
    expect(bomb.length).toBeLessThan(20_000);
    expect(() => checkArchive(bomb, 1_000_000)).toThrow('unpacks to more than 1 MB');
  });

  it('does not believe what an archive says of its own size', () => {
    const bomb = zipSync({ ...book, big: new Uint8Array(4_000_000) });
    // Uncompressed size in the central directory and the local header, set to 1.
    const lying = Uint8Array.from(bomb);
    const view = new DataView(lying.buffer);
    for (let i = 0; i + 4 < lying.length; i++)
      if (view.getUint32(i, true) === 4_000_000) view.setUint32(i, 1, true);
    expect(() => checkArchive(lying, 1_000_000)).toThrow('unpacks to more than 1 MB');
  });

  it('refuses thousands of parts, a damaged file, and an archive of something else', () => {
    const many = Object.fromEntries(Array.from({ length: 2500 }, (_, i) => [`f${i}`, strToU8('x')]));
    expect(() => checkArchive(zipSync({ ...many, ...book }))).toThrow('2000 parts');
    expect(() => checkArchive(zipSync({ 'a.txt': strToU8('hello') }))).toThrow('no spreadsheet');
    const cut = zipSync({ ...book, b: strToU8('hello world '.repeat(999)) }, { level: 9 }).slice(0, 60);
    expect(() => checkArchive(cut)).toThrow(/damaged|cut off|no spreadsheet/);
  });
});
