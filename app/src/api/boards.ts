import { useQuery } from '@tanstack/react-query';
import type { Board, BoardDocument, BoardShare } from '@vivid-beacon/core';
import type { BOARD_LISTS } from '@vivid-beacon/core/src/schemas/lists';
import { useChange } from './changes';
import { call } from './client';
import { usePages } from './pages';

/* Boards: lists, one board, with whom it is shared, its versions. */

/** Which boards are listed. */
export interface WhichBoards {
  readonly list?: (typeof BOARD_LISTS)[number];
  readonly label?: string;
  /** Only those that show a metric of this asset. */
  readonly assetId?: string;
  /** Words in title, labels or owner. */
  readonly search: string;
}

/** Boards in pages: favourites first, then by title. */
export const useBoardPages = (ask: WhichBoards) =>
  usePages(['boards', 'pages', ask], (part) => call('GET /api/boards', { query: { ...ask, ...part } }));

/** Labels of the boards that are seen. */
export const useBoardLabels = () =>
  useQuery({ queryKey: ['boards', 'labels'], queryFn: () => call('GET /api/boards/labels') });

export const useBoard = (id: string) =>
  useQuery({
    queryKey: ['boards', id],
    queryFn: () => call('GET /api/boards/:id', { params: { id } }),
    enabled: id !== 'new',
  });

export interface BoardForm {
  /** null = a new board. */
  readonly id: string | null;
  readonly title: string;
  readonly document: BoardDocument;
  readonly revision: number;
  /** With whom a new board is shared; default: nobody. */
  readonly shares?: readonly BoardShare[];
}

/** Sends only the editable fields of a board. */
function saveBoard({ id, title, document, revision, shares = [] }: BoardForm): Promise<Board> {
  return id === null
    ? call('POST /api/boards', { body: { title, document, shares: [...shares] } })
    : call('PUT /api/boards/:id', { params: { id }, body: { title, document, revision } });
}

export const useSaveBoard = () => useChange(saveBoard, ['boards']);

export const useRemoveBoard = () =>
  useChange((id: string) => call('DELETE /api/boards/:id', { params: { id } }), ['boards', 'removals']);

/** @param on whether it is asked for: only those who may change a board are told. */
export const useBoardShared = (id: string, on: boolean) =>
  useQuery({
    queryKey: ['boards', id, 'sharing'],
    queryFn: () => call('GET /api/boards/:id/sharing', { params: { id } }),
    enabled: on,
  });

export const useShareBoard = (id: string) =>
  useChange(
    ({ ownerId, shares }: { readonly ownerId: string; readonly shares: readonly BoardShare[] }) =>
      call('PUT /api/boards/:id/sharing', { params: { id }, body: { ownerId, shares: [...shares] } }),
    ['boards'],
  );

export const useLabelBoard = (id: string) =>
  useChange(
    (labels: readonly string[]) =>
      call('PUT /api/boards/:id/labels', { params: { id }, body: { labels: [...labels] } }),
    ['boards'],
  );

export const useArchiveBoard = (id: string) =>
  useChange(
    (archived: boolean) => call('PUT /api/boards/:id/archived', { params: { id }, body: { archived } }),
    ['boards'],
  );

export const useFavourite = (id: string) =>
  useChange(
    (favourite: boolean) => call('PUT /api/boards/:id/favourite', { params: { id }, body: { favourite } }),
    ['boards'],
  );

/** Versions of a board, the newest first, in pages. */
export const useBoardVersions = (id: string) =>
  usePages(['boards', id, 'versions'], async (part) => {
    const { items, total } = await call('GET /api/boards/:id/versions', { params: { id }, query: part });
    return { items: items.map((each) => ({ ...each, id: String(each.revision) })), total };
  });

/** A board as it was saved once; null = none is asked for. */
export const useBoardVersion = (id: string, revision: string | null) =>
  useQuery({
    queryKey: ['boards', id, 'versions', revision],
    queryFn: () => call('GET /api/boards/:id/versions/:revision', { params: { id, revision: revision! } }),
    enabled: revision !== null,
  });

/** Goes back to an earlier version. */
export const useRestoreVersion = (board: Pick<Board, 'id' | 'revision'>) =>
  useChange(
    (revision: number) =>
      call('POST /api/boards/:id/versions/:revision/restoration', {
        params: { id: board.id, revision: String(revision) },
        body: { revision: board.revision },
      }),
    ['boards'],
  );
