import { Resvg } from '@resvg/resvg-js';
import { asTask, type TaskResult } from '../workers/workerPool';
import { FONT_FILES } from './fonts';

export { writeSheets } from './sheets';

/** Task of a worker: an SVG document as the bytes of a PNG, `scale` px for each of its own. */
export function drawPng({ svg, scale }: { svg: string; scale: number }): Promise<TaskResult<Uint8Array>> {
  return asTask(() => pngOf(svg, scale));
}

/** Draws with the shipped fonts only: what is installed on the machine changes nothing. */
export function pngOf(svg: string, scale: number): Uint8Array {
  return new Resvg(svg, {
    fitTo: { mode: 'zoom', value: scale },
    font: { fontFiles: [...FONT_FILES], loadSystemFonts: false, defaultFontFamily: 'Barlow Semi Condensed' },
  })
    .render()
    .asPng();
}
