import { MADE_METRIC, type MadeWithFile } from '@vivid-beacon/core/src/schemas/made';
import { BeaconError } from '@vivid-beacon/core';
import { makeAsset } from '../assets/changes';
import type { Reader } from '../db/reader';
import { findChildAsset } from '../assets/sql';
import { makeMetric } from '../metrics/makeMetric';

/** Without a longest allowed gap of its own a metric may miss two samples. */
const DEFAULT_GAPS = 3;

/**
 * Number under which the samples of a metric lie in the parts of a file: its id, or below 0 for one that is still to be
 * made.
 */
export function partId(metricId: string): string {
  const found = MADE_METRIC.exec(metricId);
  return found ? String(-1 - Number(found[1])) : metricId;
}

export function isMade(id: string): boolean {
  return id.startsWith('-');
}

/**
 * Makes the assets and metrics of a file inside the transaction that stores its samples. Only metrics of which samples
 * came are made, and only assets that get one; an asset of the same name in the same place is used again.
 *
 * @param withSamples numbers of {@link partId} of which samples came.
 * @returns the id of each made metric by that number.
 * @throws {BeaconError} BAD_INPUT for a name that is taken, or a reference that leads nowhere.
 */
export async function makeWithFile(
  db: Reader,
  { assets, metrics }: MadeWithFile,
  withSamples: ReadonlySet<string>,
  now: number,
): Promise<Map<string, string>> {
  const madeAssets = new Map<number, string>();
  const assetAt = async (index: number): Promise<string> => {
    const known = madeAssets.get(index);
    if (known !== undefined) return known;
    const asset = assets[index];
    if (asset === undefined || (asset.parent !== null && asset.parent >= index)) {
      throw new BeaconError(
        'BAD_INPUT',
        `assets[${index}] is not there, or stands under a later one.`,
        'made.assets',
      );
    }
    const parentId = asset.parent === null ? asset.parentId : await assetAt(asset.parent);
    // A plant of a taken name is refused: two plants must not grow together by accident.
    const found = parentId === null ? undefined : await findChildAsset(db, parentId, asset.name);
    const kind = parentId === null ? 'plant' : 'machine';
    const id =
      found ??
      (
        await makeAsset(db, {
          name: asset.name,
          parentId,
          kind,
          zone: asset.zone,
          attributes: {},
        })
      ).id;
    madeAssets.set(index, id);
    return id;
  };
  const made = new Map<string, string>();
  for (const metric of metrics) {
    const id = partId(metric.ref);
    if (!withSamples.has(id)) continue;
    const assetId = metric.asset === null ? metric.assetId : await assetAt(metric.asset);
    if (assetId === null) {
      throw new BeaconError('BAD_INPUT', `The metric "${metric.name}" belongs to no asset.`, 'made.metrics');
    }
    made.set(
      id,
      await makeMetric(db, {
        assetId,
        name: metric.name,
        unit: metric.unit,
        kind: metric.kind as Parameters<typeof makeMetric>[1]['kind'],
        intervalMs: metric.intervalMs,
        maxGapMs: metric.intervalMs * DEFAULT_GAPS,
        rollover: null,
        decimals: metric.decimals,
        stamped: metric.stamped,
        origin: 'samples',
        at: now,
      }),
    );
  }
  const orphan = [...withSamples].find((id) => isMade(id) && !made.has(id));
  if (orphan !== undefined) {
    throw new BeaconError(
      'BAD_INPUT',
      `Samples came for new-${-1 - Number(orphan)}, which is not described.`,
      'made.metrics',
    );
  }
  return made;
}
