import fc from 'fast-check';
import { isStorable, storableText } from './storable';

describe('storableText', () => {
  it('makes any text one that can be stored, and leaves those alone that can', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'binary', maxLength: 30 }),
        fc.integer({ min: 1, max: 30 }),
        (text, most) => {
          const stored = storableText(text, most);
          expect(isStorable(stored)).toBe(true);
          expect(stored.length).toBeLessThanOrEqual(most);
          if (isStorable(text)) expect(storableText(text)).toBe(text);
        },
      ),
    );
  });

  it('cuts no pair in half', () => {
    expect(storableText('a😀b', 3)).toBe('a\uFFFD…');
    expect(isStorable('\uD83D')).toBe(false);
    expect(isStorable('a\0')).toBe(false);
    expect(isStorable('😀')).toBe(true);
  });
});
