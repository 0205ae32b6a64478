import {
  MINUTE_MS,
  SHARED_WITH_ALL,
  WHOLE_SCOPE,
  type Board,
  type BoardDocument,
  type BoardVersion,
  type ErrorBody,
  type PageOf,
  type WholeBoardVersion,
} from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, emptyReadout } from '@vivid-beacon/core/src/boards';
import { onTestServer, type Visitor } from '../testing/testServer';

const { test, analyst, administrator } = onTestServer('analyst', 'administrator');

const withNotes = (...ids: string[]): BoardDocument => ({
  version: BOARD_FORMAT_VERSION,
  window: { kind: 'toDate', unit: 'day' },
  scope: WHOLE_SCOPE,
  hours: null,
  readouts: ids.map((id) => emptyReadout(id, 'note')),
});
const add = async (): Promise<Board> =>
  (
    await analyst.call<Board>('POST', '/api/boards', {
      title: 'Round',
      document: withNotes('a'),
      shares: SHARED_WITH_ALL,
    })
  ).body;
const save = async (
  by: Visitor,
  board: Board,
  document: BoardDocument,
  title = board.title,
): Promise<Board> => {
  const { status, body } = await by.call<Board>('PUT', `/api/boards/${board.id}`, {
    title,
    document,
    revision: board.revision,
  });
  expect(status).toBe(200);
  return body;
};
const versions = async (id: string, query = ''): Promise<PageOf<BoardVersion>> =>
  (await analyst.call<PageOf<BoardVersion>>('GET', `/api/boards/${id}/versions${query}`)).body;
const pass = (minutes: number): void => {
  test.clock.now += minutes * MINUTE_MS;
};

describe('versions of a board', () => {
  it('tell who saved what, the newest first; one person within ten minutes is one version', async () => {
    let board = await add();
    const made = test.clock.now;
    pass(11);
    board = await save(analyst, board, withNotes('a', 'b'));
    pass(5);
    board = await save(analyst, board, withNotes('b', 'a', 'c'), 'Morning round');
    pass(1);
    board = await save(administrator, board, withNotes('b', 'a'), 'Morning round');
    const { items, total } = await versions(board.id);
    expect(total).toBe(3);
    expect(items).toMatchObject([
      {
        revision: 4,
        savedBy: 'The administrator',
        changes: { removed: ['c'], added: [], titleBefore: null },
      },
      {
        revision: 3,
        title: 'Morning round',
        savedBy: 'The analyst',
        begunAt: made + 11 * MINUTE_MS,
        savedAt: made + 16 * MINUTE_MS,
        changes: { added: ['b', 'c'], removed: [], arranged: false, titleBefore: 'Round' },
      },
      { revision: 1, savedBy: 'The analyst', changes: null },
    ]);
    // The last of a page is told against the one after it.
    expect((await versions(board.id, '?limit=2')).items[1].changes).toEqual(items[1].changes);
  });

  it('are begun anew after ten minutes, however often it is saved', async () => {
    let board = await add();
    for (let i = 0; i < 6; i++) {
      pass(4);
      board = await save(analyst, board, withNotes('a', `x${i}`));
    }
    expect((await versions(board.id)).items.map(({ revision }) => revision)).toEqual([7, 6, 3]);
  });

  it('are gone back to as a new version, which stays', async () => {
    let board = await add();
    pass(20);
    board = await save(analyst, board, withNotes());
    const back = await analyst.call<Board>('POST', `/api/boards/${board.id}/versions/1/restoration`, {
      revision: board.revision,
    });
    expect(back.body).toMatchObject({ revision: 3, document: withNotes('a') });
    board = await save(analyst, back.body, withNotes('a', 'd'));
    expect(
      (await versions(board.id)).items.map(({ revision, restoredFrom }) => [revision, restoredFrom]),
    ).toEqual([
      [4, null],
      [3, 1],
      [2, null],
      [1, null],
    ]);
    const whole = await analyst.call<WholeBoardVersion>('GET', `/api/boards/${board.id}/versions/2`);
    expect(whole.body).toMatchObject({
      revision: 2,
      document: withNotes(),
      savedBy: 'The analyst',
      unseen: [],
    });
  });

  it('are not gone back to over somebody else’s save, nor to one that is not kept', async () => {
    let board = await add();
    const { revision } = board;
    pass(20);
    board = await save(administrator, board, withNotes('z'));
    const back = (version: number, from: number) =>
      analyst.call<{ error: ErrorBody }>('POST', `/api/boards/${board.id}/versions/${version}/restoration`, {
        revision: from,
      });
    expect(await back(1, revision)).toMatchObject({
      status: 409,
      body: { error: { code: 'CHANGED_MEANWHILE' } },
    });
    expect((await back(99, board.revision)).status).toBe(404);
  });

  it('of boards from before say that nobody is known to have saved them', async () => {
    const board = await add();
    await test.owner.query('update board_version set saved_by = null where board_id = $1', [board.id]);
    expect((await versions(board.id)).items[0].savedBy).toBeNull();
  });

  it('are kept to the latest 200', async () => {
    let board = await add();
    await test.owner.query(
      `insert into board_version (board_id, revision, title, document, begun_at, saved_at)
       select $1, n, 'Old', document, to_timestamp(0), to_timestamp(0) from board, generate_series(2, 240) n where board.id = $1`,
      [board.id],
    );
    await test.owner.query('update board set revision = 240 where id = $1', [board.id]);
    board = await save(analyst, { ...board, revision: 240 }, withNotes('a', 'b'));
    const { total, items } = await versions(board.id, '?limit=500');
    expect([total, items.at(-1)!.revision]).toEqual([200, 42]);
  });
});
