import {
  SHARED_WITH_ALL,
  WHOLE_SCOPE,
  type Board,
  type BoardLabel,
  type BoardShare,
  type BoardShared,
  type ErrorBody,
  type ListedBoard,
  type PageOf,
} from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, makeReadout } from '@vivid-beacon/core/src/boards';
import { addPerson } from '../people/sql';
import { hashPassword } from '../people/passwords';
import { onTestServer, PASSWORD, serverWithMetric, TEST_NOW, type Visitor } from '../testing/testServer';

/* Who sees which board and who changes it: every request about a board, by everybody it can be shared with. */

const { test, analyst, viewer, operator, administrator } = onTestServer(
  'analyst',
  'viewer',
  'operator',
  'administrator',
);

const document = {
  version: BOARD_FORMAT_VERSION,
  window: { kind: 'toDate', unit: 'day' },
  scope: WHOLE_SCOPE,
  hours: null,
  readouts: [],
};
type Failed = { error: ErrorBody };
const add = async (
  title: string,
  shares: readonly BoardShare[] = [],
  by: Visitor = analyst,
): Promise<string> => {
  const { status, body } = await by.call<Board>('POST', '/api/boards', { title, document, shares });
  expect(status).toBe(200);
  return body.id;
};
const titles = async (by: Visitor, query = ''): Promise<string[]> =>
  (await by.call<PageOf<ListedBoard>>('GET', `/api/boards?limit=500&${query}`)).body.items.map(
    ({ title }) => title,
  );
const status = async (by: Visitor, id: string): Promise<number> =>
  (await by.call('GET', `/api/boards/${id}`)).status;
const idOf = async (by: Visitor): Promise<string> =>
  (await by.call<{ person: { id: string } }>('GET', '/api/session')).body.person.id;

let quayside: string;
let shiftLead: Visitor;
beforeAll(async () => {
  quayside = (await serverWithMetric(administrator)).assetId;
  const passwordHash = await hashPassword(PASSWORD);
  await addPerson(test.server.app.pool, {
    email: 'lead@plant.example',
    name: 'Lead',
    rights: { everywhere: null, plants: { [quayside]: 'operator' } },
    passwordHash,
    at: TEST_NOW,
  });
  shiftLead = test.visitor();
  await shiftLead.signIn('lead@plant.example');
});

describe('a board of one person', () => {
  it('is there for its owner and for administrators of every plant', async () => {
    const id = await add('Mine alone', [], viewer);
    expect(await titles(viewer)).toContain('Mine alone');
    expect(await titles(viewer, 'list=own')).toContain('Mine alone');
    expect(await titles(administrator)).toContain('Mine alone');
    for (const other of [analyst, operator, shiftLead]) {
      expect(await titles(other)).not.toContain('Mine alone');
      expect(await status(other, id)).toBe(404);
    }
  });

  it('is shared by analysts only', async () => {
    const refused = await viewer.call<Failed>('POST', '/api/boards', {
      title: 'For all',
      document,
      shares: SHARED_WITH_ALL,
    });
    expect([refused.status, refused.body.error.code]).toEqual([403, 'NOT_ALLOWED']);
    const id = await add('Stays mine', [], viewer);
    const shared = await viewer.call('PUT', `/api/boards/${id}/sharing`, {
      ownerId: await idOf(viewer),
      shares: SHARED_WITH_ALL,
    });
    expect(shared.status).toBe(403);
  });
});

describe('shared', () => {
  const plantShare = (): BoardShare => ({ to: 'role', role: 'operator', plantId: quayside, may: 'see' });

  it.each<[string, () => BoardShare | Promise<BoardShare>, readonly string[]]>([
    ['with a person', async () => ({ to: 'person', personId: await idOf(viewer), may: 'see' }), ['viewer']],
    ['with everybody', () => SHARED_WITH_ALL[0], ['viewer', 'operator', 'shiftLead']],
    [
      'with a role',
      () => ({ to: 'role', role: 'operator', plantId: null, may: 'see' }),
      ['operator', 'shiftLead'],
    ],
    ['with a plant', plantShare, ['operator', 'shiftLead']],
    ['with administrators', () => ({ to: 'role', role: 'administrator', plantId: null, may: 'see' }), []],
  ])('%s, it is seen by them and nobody else', async (words, share, seers) => {
    const id = await add(`Shared ${words}`, [await share()]);
    for (const [name, by] of Object.entries({ viewer, operator, shiftLead })) {
      expect([name, await status(by, id)]).toEqual([name, seers.includes(name) ? 200 : 404]);
      expect((await titles(by)).includes(`Shared ${words}`)).toBe(seers.includes(name));
    }
  });

  it('to see, it is not changed; to change, it is, but shared no further', async () => {
    const to = (may: BoardShare['may']): BoardShare => ({ to: 'role', role: 'viewer', plantId: null, may });
    const seen = await add('To see', [to('see')]);
    const changed = await add('To change', [to('change')]);
    const ownerId = await idOf(analyst);
    const changes = (id: string): [string, string, object?][] => [
      ['PUT', `/api/boards/${id}`, { title: 'New', document, revision: 1 }],
      ['PUT', `/api/boards/${id}/labels`, { labels: ['Energy'] }],
      ['PUT', `/api/boards/${id}/archived`, { archived: true }],
      ['POST', `/api/boards/${id}/versions/1/restoration`, { revision: 2 }],
      ['GET', `/api/boards/${id}/sharing`],
      ['DELETE', `/api/boards/${id}`],
    ];
    for (const [method, path, body] of changes(seen)) {
      const { status: told, body: failed } = await viewer.call<Failed>(method, path, body);
      expect([path, told, failed.error.code]).toEqual([path, 403, 'NOT_ALLOWED']);
    }
    const shared = await viewer.call('PUT', `/api/boards/${changed}/sharing`, { ownerId, shares: [] });
    expect(shared.status).toBe(403);
    for (const [method, path, body] of changes(changed)) {
      expect([path, (await viewer.call(method, path, body)).status]).toEqual([path, expect.any(Number)]);
      expect((await viewer.call(method, path, body)).status).not.toBe(403);
    }
    const { body } = await analyst.call<Board>('GET', `/api/boards/${seen}`);
    expect(body).toMatchObject({ title: 'To see', revision: 1, labels: [], archivedAt: null });
  });

  it('names people and plants, and refuses those that do not exist', async () => {
    const id = await add('With names', [plantShare()]);
    const { body } = await analyst.call<BoardShared>('GET', `/api/boards/${id}/sharing`);
    expect(body.names).toMatchObject({
      [`person:${await idOf(analyst)}`]: 'The analyst',
      [`plant:${quayside}`]: expect.stringMatching(/^Plant/) as string,
    });
    const put = (parts: object) =>
      analyst.call<Failed>('PUT', `/api/boards/${id}/sharing`, {
        ownerId: body.ownerId,
        shares: [],
        ...parts,
      });
    const nobody = await put({ shares: [{ to: 'person', personId: '999999', may: 'see' }] });
    expect([nobody.status, nobody.body.error.path]).toEqual([422, 'shares[0]']);
    expect((await put({ ownerId: '999999' })).body.error.path).toBe('ownerId');
    expect((await put({ shares: [plantShare(), { ...plantShare(), may: 'change' }] })).status).toBe(422);
  });

  it('is given to another owner, and stays with them', async () => {
    const id = await add('Handed on');
    const ownerId = await idOf(operator);
    expect((await analyst.call('PUT', `/api/boards/${id}/sharing`, { ownerId, shares: [] })).status).toBe(
      200,
    );
    expect(await status(analyst, id)).toBe(404);
    expect((await operator.call<Board>('GET', `/api/boards/${id}`)).body).toMatchObject({
      ownerName: 'The operator',
      mayChange: true,
    });
  });

  it('is taken back line by line by an owner who could not share it', async () => {
    const id = await add('Too widely shared', SHARED_WITH_ALL);
    const ownerId = await idOf(operator);
    const share = (by: Visitor, shares: readonly BoardShare[]) =>
      by.call('PUT', `/api/boards/${id}/sharing`, { ownerId, shares });
    expect((await share(analyst, SHARED_WITH_ALL)).status).toBe(200);
    expect((await share(operator, [SHARED_WITH_ALL[0]])).status).toBe(200);
    expect((await share(operator, SHARED_WITH_ALL)).status).toBe(403);
    expect((await share(operator, [{ ...SHARED_WITH_ALL[0], may: 'change' }])).status).toBe(403);
    expect((await share(operator, [])).status).toBe(200);
  });

  it('ends for those who lose their role', async () => {
    const id = await add('For the plant', [plantShare()]);
    expect(await status(shiftLead, id)).toBe(200);
    await test.owner.query(`update person_site set role = 'viewer' where plant_id = $1`, [quayside]);
    expect(await status(shiftLead, id)).toBe(404);
    await test.owner.query(`update person_site set role = 'operator' where plant_id = $1`, [quayside]);
  });
});

describe('lists', () => {
  it('have favourites first, each person their own', async () => {
    const id = await add('Zebra', SHARED_WITH_ALL);
    await add('Aardvark', SHARED_WITH_ALL);
    expect((await viewer.call('PUT', `/api/boards/${id}/favourite`, { favourite: true })).status).toBe(204);
    expect((await titles(viewer))[0]).toBe('Zebra');
    expect((await titles(analyst))[0]).not.toBe('Zebra');
    expect(await titles(viewer, 'list=favourites')).toEqual(['Zebra']);
    await viewer.call('PUT', `/api/boards/${id}/favourite`, { favourite: false });
    expect(await titles(viewer, 'list=favourites')).toEqual([]);
  });

  it('are found by an asset of which they show a metric, itself or in groups of its name', async () => {
    const hot = { name: 'Found by asset', unit: '°C' };
    const one = await serverWithMetric(analyst, hot);
    const two = await serverWithMetric(analyst, hot);
    const other = await serverWithMetric(analyst, { name: 'Found by nobody' });
    const board = async (title: string, metricId: string, groupBy: object | null): Promise<void> => {
      const readout = makeReadout('r1', 'figure', { measures: [{ metricId, summary: 'mean', per: null }] });
      const shown = { ...document, readouts: [{ ...readout, groupBy }] };
      expect((await analyst.call('POST', '/api/boards', { title, document: shown })).status).toBe(200);
    };
    await board('Of one alone', one.metricId, null);
    await board('Of all by asset', one.metricId, { kind: 'asset' });
    expect(await titles(analyst, `assetId=${one.assetId}`)).toEqual(['Of all by asset', 'Of one alone']);
    expect(await titles(analyst, `assetId=${two.assetId}`)).toEqual(['Of all by asset']);
    expect(await titles(analyst, `assetId=${other.assetId}`)).toEqual([]);
    // Of a plant that somebody does not see nothing is said.
    expect((await shiftLead.call('GET', `/api/boards?assetId=${one.assetId}`)).status).toBe(404);
  });

  it('have labels, counted over what the caller sees', async () => {
    const [all, alone] = [await add('Labelled', SHARED_WITH_ALL), await add('Labelled alone')];
    for (const id of [all, alone]) {
      expect(
        (await analyst.call('PUT', `/api/boards/${id}/labels`, { labels: ['Morning round'] })).status,
      ).toBe(204);
    }
    const labels = async (by: Visitor): Promise<readonly BoardLabel[]> =>
      (await by.call<BoardLabel[]>('GET', '/api/boards/labels')).body;
    expect(await labels(analyst)).toEqual([{ label: 'Morning round', boards: 2 }]);
    expect(await labels(viewer)).toEqual([{ label: 'Morning round', boards: 1 }]);
    expect(await titles(viewer, 'label=Morning round')).toEqual(['Labelled']);
    expect(await titles(analyst, 'search=morning alone')).toEqual(['Labelled alone']);
    const twice = await analyst.call('PUT', `/api/boards/${all}/labels`, { labels: ['A', 'a '] });
    expect(twice.status).toBe(422);
  });

  it('leave out what is in the archive, where it is found again', async () => {
    const id = await add('Old press', SHARED_WITH_ALL);
    await analyst.call('PUT', `/api/boards/${id}/archived`, { archived: true });
    expect(await titles(viewer)).not.toContain('Old press');
    expect(await titles(viewer, 'list=archive')).toEqual(['Old press']);
    expect((await viewer.call<Board>('GET', `/api/boards/${id}`)).body.archivedAt).toBe(test.clock.now);
    await analyst.call('PUT', `/api/boards/${id}/archived`, { archived: false });
    expect(await titles(viewer)).toContain('Old press');
  });
});
