import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import * as opentype from 'opentype.js';
import { ADVANCE_WIDTHS, UNITS_PER_EM, type AdvanceWidths } from './advanceWidths';
import { FACES, type Face } from './scene';
import { textWidth } from './textWidth';

const FILES: Readonly<Record<Face, string>> = {
  regular: '@expo-google-fonts/barlow-semi-condensed/400Regular/BarlowSemiCondensed_400Regular.ttf',
  medium: '@expo-google-fonts/barlow-semi-condensed/500Medium/BarlowSemiCondensed_500Medium.ttf',
  strong: '@expo-google-fonts/barlow-semi-condensed/600SemiBold/BarlowSemiCondensed_600SemiBold.ttf',
  title: '@expo-google-fonts/besley/700Bold/Besley_700Bold.ttf',
};
/** Basic Latin, Latin-1 and Latin Extended-A, and the signs of numbers and units. */
const RANGES: readonly (readonly [from: number, to: number])[] = [
  [0x20, 0x7e],
  [0xa0, 0x17f],
];
const SIGNS = '–—‘’“”•…€−≤≥≈×÷°²³µμΩ‰₂\u2009\u202f';

const fontOf = (face: Face): opentype.Font => {
  const bytes = readFileSync(require.resolve(FILES[face]));
  return opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
};

function widthsOf(face: Face): AdvanceWidths {
  const font = fontOf(face);
  const width = (code: number): number =>
    Math.round(
      ((font.charToGlyph(String.fromCodePoint(code)).advanceWidth ?? 0) * UNITS_PER_EM) / font.unitsPerEm,
    );
  return {
    ranges: RANGES.map(([from, to]) => ({
      from,
      widths: Array.from({ length: to - from + 1 }, (_, i) => width(from + i)),
    })),
    signs: Object.fromEntries([...SIGNS].map((sign) => [sign, width(sign.codePointAt(0)!)])),
  };
}

describe('the table of advance widths', () => {
  const table = Object.fromEntries(
    FACES.map((face) => [face, widthsOf(face)]),
  ) as unknown as typeof ADVANCE_WIDTHS;
  if (process.env.WRITE_WIDTHS) {
    it('is written anew', () => writeTable(table));
    return;
  }

  it.each(FACES)('is that of the shipped font, %s (made anew by npm run widths)', (face) => {
    expect(ADVANCE_WIDTHS[face]).toEqual(table[face]);
  });
});

describe('textWidth', () => {
  it('is what the font itself says, but for the pairs of letters that it moves nearer or apart', () => {
    const font = fontOf('medium');
    for (const text of ['Gas per kg, four dryers', '1,204.5 kWh', 'Foundry Lane / Dryer 1', '−12.5 °C']) {
      const exact = font.getAdvanceWidth(text, 12);
      expect(Math.abs(textWidth(text, 'medium', 12) / exact - 1)).toBeLessThan(0.05);
    }
  });

  it('adds up, and grows with the size', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), fc.constantFrom(...FACES), (a, b, face) => {
        expect(textWidth(a + b, face, 12)).toBeCloseTo(textWidth(a, face, 12) + textWidth(b, face, 12), 6);
        expect(textWidth(a, face, 24)).toBeCloseTo(2 * textWidth(a, face, 12), 6);
      }),
    );
  });

  it('gives a letter that no font of ours has the width of a wide one', () => {
    expect(textWidth('漢', 'medium', 10)).toBe(10);
  });
});

function writeTable(table: typeof ADVANCE_WIDTHS): void {
  const file = path.join(__dirname, 'advanceWidths.ts');
  const head = readFileSync(file, 'utf8').split('export const ADVANCE_WIDTHS')[0];
  writeFileSync(
    file,
    `${head}export const ADVANCE_WIDTHS: Readonly<Record<Face, AdvanceWidths>> = ${JSON.stringify(table)};\n`,
  );
}
