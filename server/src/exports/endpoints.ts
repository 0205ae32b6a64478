import * as yup from 'yup';
import { BeaconError, writeColumns } from '@vivid-beacon/core';
import { endpoint } from '../http/endpoint';
import { needMetrics } from '../metrics/metrics';
import type { MetricRow } from '../metrics/sql';
import { sendColumns } from '../readings/columns';
import { piecesOf, readPage } from '../samples/pages';
import { EXPORT_FORMATS, openExport, type ExportFormat, type ExportRow } from './writers';

const MOST_ROWS_A_PAGE = 50_000;
const ROWS_AT_ONCE = 5000;
const MOST_METRICS = 200;

const stretch = {
  from: yup.number().integer().required(),
  to: yup.number().integer().moreThan(yup.ref('from'), 'to must lie after from').required(),
};

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
        ...stretch,
        offset: yup.number().integer().min(0).default(0),
        limit: yup.number().integer().min(1).max(MOST_ROWS_A_PAGE).default(1000),
      })
      .noUnknown(),
    handle: async ({ app, params, query, response }) => {
      refuseOthers((await needMetrics(app.pool, [params.id])).values());
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
        metricIds: yup
          .string()
          .matches(/^[1-9]\d*(,[1-9]\d*)*$/, 'metricIds are ids joined by commas')
          .required(),
        ...stretch,
        format: yup
          .string()
          .oneOf([...EXPORT_FORMATS])
          .required(),
      })
      .noUnknown(),
    handle: async ({ app, query, response }) => {
      const ids = [...new Set(query.metricIds.split(','))];
      if (ids.length > MOST_METRICS) {
        throw new BeaconError(
          'TOO_LARGE',
          `At most ${MOST_METRICS} metrics at a time, got ${ids.length}.`,
          'metricIds',
        );
      }
      const rows = [...(await needMetrics(app.pool, ids)).values()];
      refuseOthers(rows);
      const name = rows.length === 1 ? rows[0].key.replace(/[^a-z0-9.-]+/gi, '-') : `${rows.length}-metrics`;
      const writer = openExport(response, query.format as ExportFormat, name);
      try {
        for (const row of rows) {
          for await (const { t, v, q } of piecesOf(app.pool, row.id, query.from, query.to)) {
            for (let i = 0; i < t.length; i += ROWS_AT_ONCE) {
              const part: ExportRow[] = [];
              for (let k = i; k < Math.min(t.length, i + ROWS_AT_ONCE); k++) {
                part.push({
                  t: t[k],
                  metric: row.name,
                  key: row.key,
                  asset: row.assetName,
                  plant: row.plantName,
                  zone: row.zone,
                  value: Number.isNaN(v[k]) ? null : v[k],
                  unit: row.unit,
                  quality: q?.[k] ?? 0,
                });
              }
              await writer.write(part);
            }
          }
        }
        await writer.end();
      } catch (error) {
        // The head is sent: all that can be done is to break the file off, so that nobody takes it for whole.
        app.log.warn({ err: error }, 'export broken off');
        response.destroy();
      }
    },
  }),
];
