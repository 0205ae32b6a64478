import * as yup from 'yup';
import { ONE_VALUE } from './oneValue';
import type { ReadData } from './readoutData';
import type { ReadoutFormOf } from './readoutForm';
import { TEXT, wrapped, written } from './scene/words';

interface NoteChoices {
  /** Markdown. */
  readonly text: string;
}

export interface NoteData extends ReadData {
  /** Markdown. */
  readonly text: string;
}

/** Words with a link; it shows no measure. */
export const note: ReadoutFormOf<NoteChoices, NoteData> = {
  ...ONE_VALUE,
  fields: { text: yup.string().max(20_000).default('') },
  defaults: { text: '' },
  slots: ['words', 'appearance'],
  label: 'Note',
  measures: 'none',
  columns: { one: 4, many: 4 },
  requests: () => [],
  data: ({ readout, view }) => ({
    text: readout.text,
    window: { start: view.now, end: view.now },
    zone: 'UTC',
    now: view.now,
    decimals: 0,
  }),
  scene: ({ text }, { width }) => {
    const shown = text.trim() === '' ? 'Nothing written yet.' : plainText(text);
    const lines = wrapped(shown, TEXT.body, width);
    return {
      width,
      height: lines.length * TEXT.body.lineHeight,
      marks: [
        written(lines, {
          key: 'text',
          x: 0,
          y: 0,
          style: TEXT.body,
          ink: text.trim() === '' ? 'ink2' : 'ink',
        }),
      ],
      hits: [],
      spoken: shown,
    };
  },
  table: ({ text }) => ({ columns: [{ name: 'Text', unit: '' }], rows: [[plainText(text)]] }),
};

/** Markdown as plain text for screen readers: without markup, list items keep a dash. */
export function plainText(markdown: string): string {
  return markdown
    .replace(/^#{1,6} +/gm, '')
    .replace(/^[ \t]*[*+-] +/gm, '– ')
    .replace(/!?\[([^\]]*)\]\([^)]*\)/g, '$1')
    .replace(/(\*\*|__|`)(.+?)\1/g, '$2')
    .replace(/(^|\W)[*_](\S(?:.*?\S)?)[*_](?=\W|$)/g, '$1$2')
    .trim();
}
