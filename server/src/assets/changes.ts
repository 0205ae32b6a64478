import { IANAZone } from 'luxon';
import { BeaconError, type Asset, type AssetImportRow } from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
import {
  addAsset,
  changeAsset,
  findAsset,
  idsUpwards,
  listAssets,
  removeAsset,
  dependentsOf,
  type AssetParts,
} from './sql';

/** Adds an asset. @throws {BeaconError} BAD_INPUT for an unknown zone, a missing parent or a name that is taken. */
export async function makeAsset(db: Reader, asset: AssetParts): Promise<Asset> {
  await checkPlace(db, asset, null);
  const id = await addAsset(db, asset);
  if (id === undefined) throw taken(asset.name);
  return (await findAsset(db, id))!;
}

/**
 * Renames, moves or describes an asset. @throws {BeaconError} BAD_INPUT, also if it would become its own
 * descendant.
 */
export async function editAsset(db: Reader, id: string, asset: AssetParts): Promise<Asset> {
  if (!(await findAsset(db, id))) throw new BeaconError('NOT_FOUND', 'This asset does not exist any more.');
  await checkPlace(db, asset, id);
  if (!(await changeAsset(db, id, asset))) throw taken(asset.name);
  return (await findAsset(db, id))!;
}

/** Removes an asset without dependents. @throws {BeaconError} NOT_FOUND, or WRONG_STATE naming the dependents. */
export async function dropAsset(db: Reader, id: string, at: number): Promise<void> {
  if (!(await findAsset(db, id))) throw new BeaconError('NOT_FOUND', 'This asset does not exist any more.');
  const left = await dependentsOf(db, id);
  const words = [
    [left.children, 'assets below it'],
    [left.metrics, 'metrics'],
    [left.indicators, 'indicators'],
    [left.flags, 'open flags'],
  ].filter(([n]) => Number(n) > 0);
  if (words.length > 0) {
    throw new BeaconError(
      'WRONG_STATE',
      `This asset still has ${words.map(([n, what]) => `${n} ${what}`).join(', ')}. Move, remove or close them first.`,
    );
  }
  await removeAsset(db, id, at);
}

async function checkPlace(db: Reader, { zone, parentId }: AssetParts, id: string | null): Promise<void> {
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
  if (parentId === null) {
    if (db.asker.sites !== null) await refusePlant(db, id);
    return;
  }
  // Not the whole tree: a list of 5,000 assets read it for each of them.
  const above = (await findAsset(db, parentId)) ? await idsUpwards(db, parentId) : [];
  if (above.length === 0) {
    throw new BeaconError('BAD_INPUT', 'The parent asset does not exist.', 'parentId');
  }
  if (id !== null && above.includes(id)) {
    throw new BeaconError(
      'BAD_INPUT',
      'An asset cannot be moved below itself or one of its own descendants.',
      'parentId',
    );
  }
}

/** A new plant belongs to nobody's rights yet. @throws {BeaconError} NOT_ALLOWED unless it is one already. */
async function refusePlant(db: Reader, id: string | null): Promise<void> {
  if (id !== null && (await findAsset(db, id))?.parentId === null) return;
  throw new BeaconError('NOT_ALLOWED', 'To make a plant takes the role analyst at every plant.', 'parentId');
}

function taken(name: string): BeaconError {
  return new BeaconError('BAD_INPUT', `There is already an asset named "${name}" in this place.`, 'name');
}

/** One row of an asset list: its path from the plant down. */
export interface AssetImportAnswer {
  readonly added: number;
  readonly changed: number;
  readonly refused: readonly { readonly line: number; readonly reason: string }[];
}

/** Adds a list of assets by path; missing assets on the path are created, existing ones updated. */
export async function importAssets(db: Reader, rows: readonly AssetImportRow[]): Promise<AssetImportAnswer> {
  const known = new Map<string, Asset>();
  const keyOf = (parentId: string | null, name: string): string => `${parentId ?? ''}/${name.toLowerCase()}`;
  for (const asset of await listAssets(db)) known.set(keyOf(asset.parentId, asset.name), asset);
  const refused: { line: number; reason: string }[] = [];
  let added = 0;
  let changed = 0;
  for (const row of rows) {
    try {
      let parentId: string | null = null;
      for (const [depth, name] of row.path.entries()) {
        const last = depth === row.path.length - 1;
        const found: Asset | undefined = known.get(keyOf(parentId, name));
        const facts = last ? row : { kind: '', zone: null, attributes: {} };
        if (!found) {
          const kind = facts.kind || (depth === 0 ? 'plant' : last ? 'machine' : 'area');
          const zone = depth === 0 ? row.zone : facts.zone;
          const made = await makeAsset(db, { name, parentId, kind, zone, attributes: facts.attributes });
          known.set(keyOf(parentId, name), made);
          added++;
          parentId = made.id;
          continue;
        }
        if (last) {
          await editAsset(db, found.id, {
            name: found.name,
            parentId,
            kind: row.kind || found.kind,
            zone: row.zone ?? found.ownZone,
            attributes: { ...found.attributes, ...row.attributes },
          });
          changed++;
        }
        parentId = found.id;
      }
    } catch (error) {
      if (!(error instanceof BeaconError)) throw error;
      refused.push({ line: row.line, reason: error.message });
    }
  }
  return { added, changed, refused };
}
