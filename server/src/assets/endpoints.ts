import { IANAZone } from 'luxon';
import { BeaconError, newAssetSchema } from '@vivid-beacon/core';
import { endpoint } from '../http/endpoint';
import { notify } from '../live/notify';
import { addAsset, findAsset, listAssets } from './sql';

export const assetEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/assets',
    access: 'viewer',
    summary: 'Lists the asset tree.',
    answer: '[{ id, parentId, name, kind, zone, plantId }], parents before children',
    handle: ({ app }) => listAssets(app.pool),
  }),
  endpoint({
    method: 'post',
    path: '/api/assets',
    access: 'analyst',
    summary: 'Adds an asset. One without a parent is a plant and needs a time zone.',
    answer: '{ id, parentId, name, kind, zone, plantId }',
    body: newAssetSchema,
    handle: async ({ app, body }) => {
      const { name, parentId, kind, zone } = body;
      if (zone !== null && !IANAZone.isValidZone(zone)) {
        throw new BeaconError(
          'BAD_INPUT',
          `Unknown time zone "${zone}". Use a name such as Europe/London.`,
          'zone',
        );
      }
      if (parentId === null && zone === null) {
        throw new BeaconError('BAD_INPUT', 'A plant needs a time zone such as Europe/London.', 'zone');
      }
      if (parentId !== null && !(await findAsset(app.pool, parentId))) {
        throw new BeaconError('BAD_INPUT', 'The asset it should stand under does not exist.', 'parentId');
      }
      const id = await addAsset(app.pool, { name, parentId, kind, zone });
      if (id === undefined) {
        throw new BeaconError(
          'BAD_INPUT',
          `There is already an asset named "${name}" in this place.`,
          'name',
        );
      }
      await notify(app.pool, 'metrics', []);
      return findAsset(app.pool, id);
    },
  }),
];
