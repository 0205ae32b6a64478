import { samplesApi } from '@vivid-beacon/core/src/api/samples';
import { BeaconError, stampShift, encodeColumns } from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { endpoints, SENT } from '../http/endpoint';
import { needMetrics } from '../metrics/metrics';
import type { MetricRow } from '../metrics/sql';
import { sendColumns } from '../readings/columns';
import { piecesOf, readPage } from '../samples/pages';
import { sendExport } from './sendExport';
import { type ExportPiece } from './formats';

function refuseOthers(rows: Iterable<MetricRow>): void {
  for (const { origin, name } of rows) {
    if (origin !== 'samples') {
      throw new BeaconError(
        'BAD_INPUT',
        `${name} is a ${origin} metric and has no raw samples. Choose the metrics it is made from.`,
        'metricIds',
      );
    }
  }
}

/** Samples of metrics, one metric after another. */
/** Times as their sender writes them: amounts are kept by the start of their interval. */
const later = (t: Float64Array, shift: number): Float64Array =>
  shift === 0 ? t : t.map((each) => each + shift);

async function* piecesOfAll(
  db: Queryable,
  rows: readonly MetricRow[],
  from: number,
  to: number,
): AsyncGenerator<ExportPiece> {
  for (const row of rows) {
    const { id, name: metric, key, assetName: asset, plantName: plant, zone, unit } = row;
    const shift = stampShift(row, row.stamped);
    for await (const { t, v, q } of piecesOf(db, id, from - shift, to - shift)) {
      yield { metric, key, asset, plant, zone, unit, t: later(t, shift), v, q };
    }
  }
}

export const exportEndpoints = endpoints(samplesApi, {
  'GET /api/metrics/:id/samples': async ({ app, db, params, query, response }) => {
    const row = (await needMetrics(db, [params.id])).get(params.id)!;
    refuseOthers([row]);
    const { from, to, offset, limit } = query;
    const shift = stampShift(row, row.stamped);
    const { total, series } = await readPage(app.pool, params.id, from - shift, to - shift, offset, limit);
    return sendColumns(
      response,
      encodeColumns({ total, offset }, [
        ['t', later(series.t, shift)],
        ['v', series.v],
        ['q', series.q ?? new Uint8Array(series.t.length)],
      ]),
    );
  },

  'GET /api/exports/samples': async ({ app, db, query, response }) => {
    const ids = [...new Set(query.metricIds.split(','))];
    const rows = [...(await needMetrics(db, ids)).values()];
    refuseOthers(rows);
    const name = rows.length === 1 ? rows[0].key.replace(/[^a-z0-9.-]+/gi, '-') : `${rows.length}-metrics`;
    const { from, to, format } = query;
    try {
      await sendExport(response, app.workers.exports, {
        format,
        name,
        pieces: piecesOfAll(app.pool, rows, from, to),
      });
    } catch (error) {
      if (!response.headersSent) throw error;
      // The head has been sent, so the only way to signal the error is to abort the download.
      app.log.warn({ err: error }, 'export broken off');
      response.destroy();
    }
    return SENT;
  },
});
