import { BeaconError } from '@vivid-beacon/core';
import { ucumCode } from '@vivid-beacon/core/src/units/unit';
import { findAsset } from '../assets/sql';
import type { Reader } from '../db/reader';
import { keyFrom } from './metrics';
import { addMetric, type NewMetric } from './sql';

/**
 * Adds a metric with a key made from plant, asset and its own name, and the UCUM code of its unit.
 *
 * @returns its id. @throws {BeaconError} BAD_INPUT for a missing asset or a name that is taken.
 */
export async function makeMetric(db: Reader, metric: Omit<NewMetric, 'key' | 'ucum'>): Promise<string> {
  const asset = await findAsset(db, metric.assetId);
  if (!asset) throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'assetId');
  const plant = (await findAsset(db, asset.plantId))!;
  const place = plant.id === asset.id ? [plant.name] : [plant.name, asset.name];
  const key = keyFrom(...place, metric.name);
  const id =
    (await addMetric(db, { ...metric, key, ucum: ucumCode(metric.unit) })) ??
    // Two assets of one name in a plant would share a key: the second gets its number.
    (await addMetric(db, { ...metric, key: `${key}.${asset.id}`, ucum: ucumCode(metric.unit) }));
  if (id === undefined) {
    throw new BeaconError('BAD_INPUT', `${asset.name} already has a metric named "${metric.name}".`, 'name');
  }
  return id;
}
