import * as yup from 'yup';
import { BeaconError, idText, type RemarkKind, fromAndTo } from '@vivid-beacon/core';
import { stretchRemarkSchema } from '@vivid-beacon/core/src/engine';
import { findAsset } from '../assets/sql';
import { endpoint } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { addRemark, listRemarks, removeRemark } from './sql';

export const remarkEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/remarks',
    access: 'viewer',
    summary: 'Remarks on an asset that touch a stretch of time.',
    answer: '[{ id, assetId, start, end, kind: reason | abnormal | note, text, author, writtenAt }], ms',
    query: yup
      .object({
        assetId: idText().required(),
        ...fromAndTo(),
      })
      .noUnknown(),
    handle: ({ app, query }) => listRemarks(app.pool, [query.assetId], query.from, query.to),
  }),
  endpoint({
    method: 'post',
    path: '/api/remarks',
    access: 'operator',
    summary: 'Puts a remark on a stretch of time of an asset.',
    answer: '{ id }',
    body: stretchRemarkSchema,
    handle: async ({ app, db, body, person }) => {
      if (!(await findAsset(db, body.assetId))) {
        throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'assetId');
      }
      const remark = { ...body, kind: body.kind as RemarkKind, authorId: person.id, at: app.now() };
      const id = await changeAndNotify(
        app.pool,
        'logs',
        (db) => addRemark(db, remark),
        (made) => [made],
      );
      return { id };
    },
  }),
  endpoint({
    method: 'delete',
    path: '/api/remarks/:id',
    access: 'operator',
    summary: 'Takes a remark away.',
    answer: 'Nothing (204).',
    handle: async ({ app, params }) => {
      await changeAndNotify(
        app.pool,
        'logs',
        (db) => removeRemark(db, params.id),
        () => [params.id],
      );
    },
  }),
];
