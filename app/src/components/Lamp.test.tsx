/** @jest-environment node */
import { renderToStaticMarkup } from 'react-dom/server';
import { LEVELS, LEVEL_WORDS } from '@vivid-beacon/core';
import { DAY, NIGHT, type Palette } from '@vivid-beacon/core/src/drawing/palette';
import { LampWord } from './LampWord';

/** Contrast ratio of two colours (WCAG 2.2, relative luminance). */
function contrast(a: string, b: string): number {
  const luminance = (hex: string): number => {
    const [r, g, bl] = [1, 3, 5].map((i) => {
      const c = parseInt(hex.slice(i, i + 2), 16) / 255;
      return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * r + 0.7152 * g + 0.0722 * bl;
  };
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (high + 0.05) / (low + 0.05);
}

describe('a lamp', () => {
  it.each(LEVELS)('never stands without its word: %s', (level) => {
    expect(renderToStaticMarkup(<LampWord level={level} />)).toContain(`>${LEVEL_WORDS[level]}<`);
  });
});

describe.each([
  ['day sheet', DAY],
  ['night watch', NIGHT],
] as [string, Palette][])('the %s', (_name, palette) => {
  it('keeps text at 4.5 to 1 and shapes at 3 to 1 (WCAG 2.2, 1.4.3 and 1.4.11)', () => {
    for (const text of [
      palette.ink,
      palette.ink2,
      palette.ink3,
      palette.clearT,
      palette.cautionT,
      palette.breachT,
    ]) {
      expect(contrast(text, palette.sheet)).toBeGreaterThanOrEqual(4.5);
    }
    expect(contrast(palette.ink2, palette.ground)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(palette.btnT, palette.btn)).toBeGreaterThanOrEqual(4.5);
    for (const shape of [palette.clear, palette.caution, palette.breach, palette.nodata, palette.line2]) {
      expect(contrast(shape, palette.sheet)).toBeGreaterThanOrEqual(3);
    }
  });
});
