import * as yup from 'yup';
import { BeaconError, writeColumns, countedNumber, fromAndTo, idList } from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { endpoint } from '../http/endpoint';
import { needMetrics } from '../metrics/metrics';
import type { MetricRow } from '../metrics/sql';
import { sendColumns } from '../readings/columns';
import { piecesOf, readPage } from '../samples/pages';
import { sendExport } from './sendExport';
import { EXPORT_FORMATS, type ExportFormat, type ExportPiece } from './formats';

const MOST_ROWS_A_PAGE = 50_000;
const MOST_METRICS = 200;

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
async function* piecesOfAll(
  db: Queryable,
  rows: readonly MetricRow[],
  from: number,
  to: number,
): AsyncGenerator<ExportPiece> {
  for (const { id, name: metric, key, assetName: asset, plantName: plant, zone, unit } of rows) {
    for await (const { t, v, q } of piecesOf(db, id, from, to)) {
      yield { metric, key, asset, plant, zone, unit, t, v, q };
    }
  }
}

export const exportEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/metrics/:id/samples',
    access: 'viewer',
    summary: 'A page of raw samples of a metric, in order of time, bad ones too.',
    answer:
      'application/octet-stream in the layout of core/src/exports/columns.ts: head { total, offset }, columns t (ms), v (NaN = missing), q (0 good, 1 uncertain, 2 bad, 3 implausible)',
    query: yup
      .object({
        ...fromAndTo(),
        offset: countedNumber().default(0),
        limit: yup.number().integer().min(1).max(MOST_ROWS_A_PAGE).default(1000),
      })
      .noUnknown(),
    handle: async ({ app, db, params, query, response }) => {
      refuseOthers((await needMetrics(db, [params.id])).values());
      const { from, to, offset, limit } = query;
      const { total, series } = await readPage(app.pool, params.id, from, to, offset, limit);
      sendColumns(
        response,
        writeColumns({ total, offset }, [
          ['t', series.t],
          ['v', series.v],
          ['q', series.q ?? new Uint8Array(series.t.length)],
        ]),
      );
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/exports/samples',
    access: 'viewer',
    summary: 'Raw samples of metrics as a file: csv, xlsx or ndjson, streamed.',
    answer:
      'The file: time in UTC and in the zone of the asset, plant, asset, metric, key, value, unit, quality. Formula-like text is escaped in csv.',
    query: yup
      .object({
        metricIds: idList(MOST_METRICS).required(),
        ...fromAndTo(),
        format: yup
          .string()
          .oneOf([...EXPORT_FORMATS])
          .required(),
      })
      .noUnknown(),
    handle: async ({ app, db, query, response }) => {
      const ids = [...new Set(query.metricIds.split(','))];
      const rows = [...(await needMetrics(db, ids)).values()];
      refuseOthers(rows);
      const name = rows.length === 1 ? rows[0].key.replace(/[^a-z0-9.-]+/gi, '-') : `${rows.length}-metrics`;
      const { from, to, format } = query;
      try {
        await sendExport(response, app.workers.exports, {
          format: format as ExportFormat,
          name,
          pieces: piecesOfAll(app.pool, rows, from, to),
        });
      } catch (error) {
        if (!response.headersSent) throw error;
        // The head is sent: all that can be done is to break the file off, so that nobody takes it for whole.
        app.log.warn({ err: error }, 'export broken off');
        response.destroy();
      }
    },
  }),
];
