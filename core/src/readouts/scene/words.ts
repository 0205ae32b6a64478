import type { Ink } from '../../drawing/palette';
import type { Face, Mark } from '../../drawing/scene';
import { textWidth } from '../../drawing/textWidth';

/** Text styles, the same as in the app. */
export interface TextStyle {
  readonly face: Face;
  readonly size: number;
  readonly lineHeight: number;
}
export const TEXT = {
  title: { face: 'title', size: 15, lineHeight: 20 },
  hero: { face: 'strong', size: 46, lineHeight: 48 },
  figure: { face: 'strong', size: 18, lineHeight: 20 },
  name: { face: 'strong', size: 16, lineHeight: 20 },
  body: { face: 'regular', size: 15, lineHeight: 20 },
  strong: { face: 'strong', size: 15, lineHeight: 20 },
  second: { face: 'regular', size: 14, lineHeight: 18 },
  caption: { face: 'medium', size: 12, lineHeight: 16 },
} as const satisfies Readonly<Record<string, TextStyle>>;

/** Wraps a text to lines of at most `width` px; a wider word has a line of its own. */
export function wrapped(text: string, { face, size }: TextStyle, width: number): string[] {
  const lines: string[] = [];
  for (const paragraph of text.split('\n')) {
    let line = '';
    for (const word of paragraph.split(/ +/)) {
      const longer = line === '' ? word : `${line} ${word}`;
      if (line !== '' && textWidth(longer, face, size) > width) {
        lines.push(line);
        line = word;
      } else line = longer;
    }
    lines.push(line);
  }
  return lines;
}

interface Writing {
  readonly key: string;
  readonly x: number;
  /** Top of the first line. */
  readonly y: number;
  readonly style: TextStyle;
  readonly ink: Ink;
  readonly anchor?: 'start' | 'middle' | 'end';
}

/** Lines of text under one another. */
export function written(
  lines: readonly string[],
  { key, x, y, style, ink, anchor = 'start' }: Writing,
): Mark {
  const { face, size, lineHeight } = style;
  // Letters are centred in their line: about a third of their size is below the middle.
  const base = y + lineHeight / 2 + 0.35 * size;
  return {
    kind: 'text',
    key,
    words: lines.map((text, i) => ({ x, y: base + i * lineHeight, text })),
    face,
    size,
    ink,
    anchor,
  };
}
