import type { Response } from 'express';
import { BeaconError, formatNumber, formatsOfLocales } from '@vivid-beacon/core';
import { CSV, PICTURE_NAME, picturesApi, PNG, SVG } from '@vivid-beacon/core/src/api/pictures';
import { DAY, NIGHT } from '@vivid-beacon/core/src/drawing/palette';
import { isProblem, formFor } from '@vivid-beacon/core/src/boards';
import type { Scene } from '@vivid-beacon/core/src/pictures';
import { findPerson } from '../people/sql';
import { needBoard } from '../boards/boards';
import { endpoints, SENT, type Sent } from '../http/endpoint';
import { readReadout } from './readReadout';
import { sceneToSvg } from './sceneToSvg';
import { tableToCsv } from './tableToCsv';

/** A picture of ours runs no scripts, whatever a title holds. */
const NO_SCRIPTS = "default-src 'none'; style-src 'unsafe-inline'; font-src data:";

/** Four bytes each, held at once by the thread that draws. */
const MAX_PIXELS = 40_000_000;

export const pictureEndpoints = endpoints(picturesApi, {
  'GET /api/boards/:id/readouts/:picture': async ({ app, db, params, query, person, request, response }) => {
    const [, readoutId, kind] = PICTURE_NAME.exec(params.picture)!;
    const { width, height, theme, scale, bare, ...look } = query;
    const board = await needBoard(db, params.id);
    // As the person's own screen writes them; a device that never said so is asked by its request.
    const { formats: own } = (await findPerson(app.pool, person.id))!;
    const formats = own ?? formatsOfLocales(request.acceptsLanguages());
    const { readout, data, draw } = await readReadout({ app, db, formats }, board, readoutId, look, width);
    if (kind === 'csv') {
      const { table } = formFor(readout);
      const csv = isProblem(data)
        ? tableToCsv(
            { columns: [{ name: data.problem.title, unit: '' }], rows: [[data.problem.text]] },
            'UTC',
          )
        : tableToCsv(table(data), data.zone);
      return send(response, CSV, csv);
    }
    const palette = theme === 'night' ? NIGHT : DAY;
    const scene = draw({ width, height }, bare);
    if (kind === 'svg') return send(response, SVG, sceneToSvg(scene, { palette, withFonts: true }));
    checkPixels(scene, scale);
    const svg = sceneToSvg(scene, { palette, withFonts: false });
    const png = await app.workers.pictures.run<Uint8Array>('drawPng', { svg, scale });
    return send(response, PNG, Buffer.from(png));
  },
});

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
