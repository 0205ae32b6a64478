import type { Response } from 'express';
import { BeaconError, formatNumber, formatsOfLocales, type Formats, type Readout } from '@vivid-beacon/core';
import { CSV, PICTURE_NAME, picturesApi, PNG, SVG, XLSX } from '@vivid-beacon/core/src/api/pictures';
import { NDJSON } from '@vivid-beacon/core/src/api/samples';
import { DAY, NIGHT } from '@vivid-beacon/core/src/drawing/palette';
import { formFor, isProblem, showsWords, traitsOfForm, type Table } from '@vivid-beacon/core/src/boards';
import type { Scene } from '@vivid-beacon/core/src/pictures';
import { findPerson } from '../people/sql';
import { needBoard } from '../boards/boards';
import { endpoints, SENT, type Call as EndpointCall, type Sent } from '../http/endpoint';
import { readReadout, type ReadReadout } from './readReadout';
import { sceneToSvg } from './sceneToSvg';
import type { NumberSheet } from './sheets';
import { tableToCsv } from './tableToCsv';
import { tableToNdjson } from './tableToNdjson';

/** A picture of ours runs no scripts, whatever a title holds. */
const NO_SCRIPTS = "default-src 'none'; style-src 'unsafe-inline'; font-src data:";

/** Four bytes each, held at once by the thread that draws. */
const MAX_PIXELS = 40_000_000;

type Call = Pick<EndpointCall, 'app' | 'db' | 'person' | 'request'>;

export const pictureEndpoints = endpoints(picturesApi, {
  'GET /api/boards/:id/readouts/:picture': async (call) => {
    const { app, db, params, query, response } = call;
    const [, readoutId, kind] = PICTURE_NAME.exec(params.picture)!;
    const { width, height, theme, scale, bare, ...look } = query;
    const board = await needBoard(db, params.id);
    const asked = { app, db, formats: await formatsOf(call) };
    const read = await readReadout(asked, board, readoutId, look, width);
    if (kind === 'csv') return send(response, CSV, tableToCsv(...rowsOf(read)));
    if (kind === 'ndjson') return send(response, NDJSON, tableToNdjson(...rowsOf(read)));
    if (kind === 'xlsx') return send(response, XLSX, await workbookOf(app, read.title, [sheetOf(read, 0)]));
    const palette = theme === 'night' ? NIGHT : DAY;
    const scene = read.draw({ width, height }, bare);
    if (kind === 'svg') return send(response, SVG, sceneToSvg(scene, { palette, withFonts: true }));
    checkPixels(scene, scale);
    const svg = sceneToSvg(scene, { palette, withFonts: false });
    const png = await app.workers.pictures.run<Uint8Array>('drawPng', { svg, scale });
    return send(response, PNG, Buffer.from(png));
  },
  'GET /api/boards/:id/numbers.xlsx': async (call) => {
    const { app, db, params, query, response } = call;
    const board = await needBoard(db, params.id);
    const asked = { app, db, formats: await formatsOf(call) };
    const sheets: NumberSheet[] = [];
    // One after another: of each only its rows are kept, so that no more than one readout's answers are held.
    for (const readout of board.document.readouts) {
      if (showsWords(readout)) continue;
      const read = await readReadout(asked, board, readout.id, query, NUMBERS_WIDTH).catch((error: unknown) =>
        refusedReadout(readout, error),
      );
      sheets.push(
        sheetOf(
          read,
          sheets.reduce((sum, { table }) => sum + cellsIn(table), 0),
        ),
      );
    }
    return send(response, XLSX, await workbookOf(app, board.title, sheets));
  },
});

/** px: courses are thinned to what a drawing of this width shows. */
const NUMBERS_WIDTH = 2400;

type NumbersOf = Pick<ReadReadout, 'readout' | 'title' | 'about' | 'data'>;

/** As the person's own screen writes them; a device that never said so is asked by its request. */
async function formatsOf({ app, person, request }: Call): Promise<Formats> {
  const { formats } = (await findPerson(app.pool, person.id))!;
  return formats ?? formatsOfLocales(request.acceptsLanguages());
}

/** The rows of a readout, or why there are none, with the zone of its moments. */
function rowsOf({ readout, data }: NumbersOf): [table: Table, zone: string] {
  if (!isProblem(data)) return [formFor(readout).table(data), data.zone];
  const { title, text } = data.problem;
  return [{ columns: [{ name: title, unit: '' }], rows: [[text]] }, 'UTC'];
}

/** What is refused of one readout says so in its place. @throws what is no refusal. */
function refusedReadout(readout: Readout, error: unknown): NumbersOf {
  if (!(error instanceof BeaconError)) throw error;
  const title = readout.title ?? traitsOfForm(readout.form).label;
  return {
    readout,
    title,
    about: [['Not read', error.message]],
    data: { problem: { title: 'Not read', text: error.message } },
  };
}

/** A workbook is held as a whole while it is written. */
const MAX_CELLS = 1_000_000;

const cellsIn = ({ columns, rows }: Table): number => columns.length * rows.length;

/**
 * A readout as a sheet.
 *
 * @param before cells of the sheets before it.
 * @throws {BeaconError} BAD_INPUT for more than a workbook holds.
 */
export function sheetOf(read: NumbersOf, before: number): NumberSheet {
  const [table, zone] = rowsOf(read);
  if (before + cellsIn(table) > MAX_CELLS) {
    throw new BeaconError(
      'BAD_INPUT',
      `With "${read.title}" this workbook would have more than ${formatNumber(MAX_CELLS, 0)} cells. Narrow the scope, shorten the window, or take the rows as CSV.`,
      'picture',
    );
  }
  return { name: read.title, table, zone, about: read.about };
}

/** Written by a thread of its own: a table may have a hundred thousand rows. */
async function workbookOf(app: Call['app'], title: string, sheets: readonly NumberSheet[]): Promise<Buffer> {
  return Buffer.from(await app.workers.pictures.run<Uint8Array>('writeSheets', { title, sheets }));
}

/** Of thousands of groups a picture is as high as they need: what it takes to draw is bounded before it is drawn. */
function checkPixels({ width, height }: Scene, scale: number): void {
  const pixels = width * height * scale ** 2;
  if (pixels <= MAX_PIXELS) return;
  const millions = (count: number): string => formatNumber(count / 1e6, 0);
  throw new BeaconError(
    'BAD_INPUT',
    `This picture would have ${millions(pixels)} million pixels; at most ${millions(MAX_PIXELS)} million are drawn. Choose a smaller scale, fewer groups, or .svg.`,
    'scale',
  );
}

function send(response: Response, type: string, body: string | Buffer): Sent {
  response.setHeader('Content-Type', typeof body === 'string' ? `${type}; charset=utf-8` : type);
  response.setHeader('Content-Security-Policy', NO_SCRIPTS);
  response.setHeader('Cache-Control', 'no-store');
  response.end(body);
  return SENT;
}
