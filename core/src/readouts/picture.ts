import { automaticFootnote, automaticTitle } from '../board/readoutWords';
import { placed, type Mark, type Scene } from '../drawing/scene';
import { windowWords } from '../time/window';
import { formFor, showsWords } from './forms';
import { isProblem, type Problem, type ReadData, type ReadoutInputs } from './readoutData';
import type { DrawingFrame } from './readoutForm';
import type { Readout } from '../board/board';
import { TEXT, wrapped, written } from './scene/words';

const PAD = 12;
const GAP = 4;

/** The drawing of a readout, or the reason why there is none. */
export function drawingOf(
  readout: Parameters<typeof formFor>[0],
  data: ReadData | Problem,
  frame: DrawingFrame,
): Scene {
  if (!isProblem(data)) return formFor(readout).scene(data, frame);
  const { title, text } = data.problem;
  const lines = wrapped(text, TEXT.body, frame.width);
  return {
    width: frame.width,
    height: TEXT.strong.lineHeight + lines.length * TEXT.body.lineHeight,
    marks: [
      written([title], { key: 'title', x: 0, y: 0, style: TEXT.strong, ink: 'ink' }),
      written(lines, { key: 'text', x: 0, y: TEXT.strong.lineHeight, style: TEXT.body, ink: 'ink2' }),
    ],
    hits: [],
    spoken: `${title}. ${text}`,
  };
}

/**
 * A readout as on its board: title, its own window if it has one, drawing, footnote.
 *
 * @param chosen the readout as saved on the board, before a focus replaced its metrics.
 */
export function pictureOf(
  chosen: Readout,
  inputs: ReadoutInputs & { readonly readout: Readout },
  data: ReadData | Problem,
  frame: DrawingFrame,
): Scene {
  const { readout, metrics, facts } = inputs;
  const room = frame.width - 2 * PAD;
  const title =
    readout.title ?? (showsWords(readout) ? '' : automaticTitle(readout, (id) => metrics.get(id)));
  const footnote = chosen.footnote ?? automaticFootnote(chosen, (id) => facts.get(id)?.name);
  const marks: Mark[] = [];
  let y = PAD;
  const write = (
    key: string,
    text: string | null,
    style: (typeof TEXT)[keyof typeof TEXT],
    ink: 'ink' | 'ink2',
  ): void => {
    if (!text) return;
    const lines = wrapped(text, style, room);
    marks.push(written(lines, { key, x: PAD, y, style, ink }));
    y += lines.length * style.lineHeight + GAP;
  };
  write('title', title, TEXT.title, 'ink');
  write('window', chosen.window && windowWords(chosen.window).replace(/^the /, ''), TEXT.caption, 'ink2');
  const rest = frame.height === null ? null : Math.max(40, frame.height - y - PAD - (footnote ? 20 : 0));
  const drawing = drawingOf(readout, data, { ...frame, width: room, height: rest });
  const put = placed(drawing, 'drawing', PAD, y);
  marks.push(...put.marks);
  y += drawing.height + GAP;
  write('footnote', footnote, TEXT.caption, 'ink2');
  return {
    width: frame.width,
    height: y - GAP + PAD,
    marks,
    hits: put.hits,
    spoken: title === '' ? drawing.spoken : `${title}: ${drawing.spoken}`,
  };
}
