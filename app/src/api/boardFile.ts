import type { BoardDocument, BoardFile, Metric } from '@vivid-beacon/core';
import { matchPlaces, placesOfBoard, type FoundHere, type NamedPlaces } from '@vivid-beacon/core/src/boards';
import { findNamedMetrics } from './catalogue';
import { call } from './client';

/* What a board file names, written out and found again. */

const MOST = 200;

/** The assets, indicators and boards that a document names, by what they are found again with. */
export async function placesFor(document: BoardDocument): Promise<NamedPlaces> {
  const { assets, indicators, boards } = placesOfBoard(document);
  const [assetRows, indicatorRows, boardRows] = await Promise.all([
    assets.length === 0
      ? []
      : call('GET /api/assets', { query: { ids: assets.join(','), limit: MOST } }).then(({ items }) => items),
    indicators.length === 0
      ? []
      : call('GET /api/indicators', { query: { ids: indicators.join(','), limit: MOST } }).then(
          ({ items }) => items,
        ),
    // One that was removed meanwhile is not named.
    Promise.all(boards.map((id) => call('GET /api/boards/:id', { params: { id } }).catch(() => null))),
  ]);
  return {
    assets: assetRows.map(({ id, title }) => ({ id, title })),
    indicators: indicatorRows.map(({ id, name, place }) => ({ id, name, place })),
    boards: boardRows.flatMap((board) => (board ? [{ id: board.id, title: board.title }] : [])),
  };
}

/** What is here of what a file names, but for its metrics. */
export async function findPlaces(file: BoardFile): Promise<Omit<FoundHere, 'metrics'>> {
  const own = file.assets.map(({ title }) => title.split(' / ').at(-1)!);
  const [assets, indicators, boards] = await Promise.all([
    own.length === 0 ? [] : call('POST /api/assets/named', { body: { names: [...new Set(own)] } }),
    Promise.all(
      [...new Set(file.indicators.map(({ name }) => name))].map(async (search) => {
        const { items } = await call('GET /api/indicators', { query: { search, limit: MOST } });
        return items;
      }),
    ),
    Promise.all(
      [...new Set(file.boards.map(({ title }) => title))].map(async (search) => {
        const { items } = await call('GET /api/boards', { query: { search, limit: MOST } });
        return items;
      }),
    ),
  ]);
  return matchPlaces(file, { assets, indicators: indicators.flat(), boards: boards.flat() });
}

/** The metrics here that a file may mean. */
export async function findFileMetrics({ metrics }: BoardFile): Promise<readonly Metric[]> {
  if (metrics.length === 0) return [];
  return findNamedMetrics(metrics.map(({ key, name, asset, unit }) => ({ key, name, asset, unit })));
}
