import * as yup from 'yup';
import { BeaconError, idText, countedNumber } from '@vivid-beacon/core';
import { metricParts } from '@vivid-beacon/core/src/engine';
import { makeAsset } from '../assets/changes';
import { readAsServer } from '../db/reader';
import { findChildAsset } from '../assets/sql';
import type { Queryable } from '../db/database';
import { makeMetric } from '../metrics/makeMetric';

const MOST_MADE = 10_000;
/** Without a longest allowed gap of its own a metric may miss two samples. */
const USUAL_GAPS = 3;

/** Stands for a metric that is made with its samples: "new-0". */
const REF = /^new-(\d{1,6})$/;

/**
 * Number under which the samples of a metric lie in the parts of a file: its id, or below 0 for one that is still to be
 * made.
 */
export function partId(metricId: string): string {
  const found = REF.exec(metricId);
  return found ? String(-1 - Number(found[1])) : metricId;
}

export function isMade(id: string): boolean {
  return id.startsWith('-');
}

/** Assets and metrics that come into being with the samples of a file. */
export const madeSchema = yup
  .object({
    assets: yup
      .array(
        yup
          .object({
            name: yup.string().trim().min(1, 'Give the asset a name').max(200).required(),
            /** An asset that is there, or the place in this list of one before it; neither for a plant. */
            parentId: idText().nullable().default(null),
            parent: countedNumber().nullable().default(null),
            zone: yup.string().max(60).nullable().default(null),
          })
          .noUnknown(),
      )
      .max(MOST_MADE)
      .default([]),
    metrics: yup
      .array(
        yup
          .object({
            ref: yup.string().matches(REF, 'ref must be new-0, new-1 …').required(),
            assetId: idText().nullable().default(null),
            asset: countedNumber().nullable().default(null),
            name: metricParts.name,
            unit: metricParts.unit,
            kind: metricParts.kind,
            intervalMs: metricParts.intervalMs,
            decimals: yup.number().integer().min(0).max(12).default(1),
          })
          .noUnknown(),
      )
      .max(MOST_MADE)
      .default([]),
  })
  .noUnknown();

export type MadeWithFile = yup.InferType<typeof madeSchema>;

/**
 * Makes the assets and metrics of a file inside the transaction that stores its samples. Only metrics of which samples
 * came are made, and only assets that get one; an asset of the same name in the same place is used again.
 *
 * @param withSamples numbers of {@link partId} of which samples came.
 * @returns the id of each made metric by that number.
 * @throws {BeaconError} BAD_INPUT for a name that is taken, or a reference that leads nowhere.
 */
export async function makeWithFile(
  db: Queryable,
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
        await makeAsset(readAsServer(db), {
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
      await makeMetric(readAsServer(db), {
        assetId,
        name: metric.name,
        unit: metric.unit,
        kind: metric.kind as Parameters<typeof makeMetric>[1]['kind'],
        intervalMs: metric.intervalMs,
        maxGapMs: metric.intervalMs * USUAL_GAPS,
        rollover: null,
        decimals: metric.decimals,
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
