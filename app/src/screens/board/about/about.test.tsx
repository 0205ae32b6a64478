import { screen, waitFor, within } from '@testing-library/react';
import type { Board, BoardShared, BoardVersion, Role } from '@vivid-beacon/core';
import { makeReadout } from '@vivid-beacon/core/src/boards';
import { makeBoard } from '../../../testing/boards';
import { renderScreen, type Answers } from '../../../testing/renderScreen';
import { personOf, signedIn } from '../../../testing/signedIn';
import { AboutBoard } from './AboutBoard';

jest.setTimeout(30_000);
const mockRouter = { push: jest.fn(), setParams: jest.fn() };
jest.mock('expo-router', () => ({ useRouter: () => mockRouter }));
const mockDownload = jest.fn();
jest.mock('../../download', () => ({ download: (address: string) => mockDownload(address) as unknown }));

const SHARED: BoardShared = {
  ownerId: '1',
  shares: [
    { to: 'role', role: 'operator', plantId: '7', may: 'see' },
    { to: 'person', personId: '9', may: 'change' },
  ],
  names: { 'person:1': 'Ines Varga', 'person:9': 'Dele Marsh', 'plant:7': 'Quayside' },
};
const version = (revision: number, parts: Partial<BoardVersion> = {}): BoardVersion => ({
  revision,
  title: 'Wash house',
  savedBy: 'Ines Varga',
  begunAt: 0,
  savedAt: revision * 3_600_000,
  restoredFrom: null,
  changes: { titleBefore: null, frame: false, added: ['a'], removed: [], changed: [], arranged: false },
  ...parts,
});

const LOOK = { window: 'rolling 7 day', scope: undefined, hours: undefined, focus: undefined };

function show(
  board: Partial<Board> = {},
  { role = 'analyst' as Role, id = '1', answers = {} as Answers } = {},
) {
  const onDone = jest.fn();
  return {
    onDone,
    ...renderScreen(<AboutBoard board={makeBoard(board)} look={LOOK} onDone={onDone} />, {
      'GET /api/session': signedIn(personOf(role, 'Somebody', id)),
      'GET /api/boards/labels': [{ label: 'Energy', boards: 2 }],
      'GET /api/boards/3/sharing': SHARED,
      'PUT /api/boards/3/sharing': SHARED,
      'GET /api/boards/3/versions': {
        items: [version(4), version(2, { restoredFrom: 1 }), version(1, { savedBy: null, changes: null })],
        total: 3,
      },
      'GET /api/people': { items: [{ id: '5', name: 'Kofi Brand', role: 'viewer' }], total: 1 },
      'GET /api/assets': [{ id: '7', parentId: null, name: 'Quayside' }],
      ...answers,
    }),
  };
}
const put = (sent: readonly { method: string; path: string; body?: unknown }[], path: string) =>
  sent.filter((each) => each.method === 'PUT' && each.path === path).map(({ body }) => body);

describe('with whom a board is shared', () => {
  it('is said in words and changed line by line by its owner', async () => {
    const { person, sent } = show();
    expect(await screen.findByText('Operators and above at Quayside')).toBeTruthy();
    const line = screen.getByRole('radiogroup', { name: 'What Operators and above at Quayside may do' });
    await person.click(within(line).getByRole('radio', { name: 'changes it' }));
    await waitFor(() => expect(put(sent, '/api/boards/3/sharing')).toHaveLength(1));
    expect(put(sent, '/api/boards/3/sharing')[0]).toEqual({
      ownerId: '1',
      shares: [{ ...SHARED.shares[0], may: 'change' }, SHARED.shares[1]],
    });
    await person.click(screen.getByRole('button', { name: 'Share no longer with Dele Marsh' }));
    await waitFor(() => expect(put(sent, '/api/boards/3/sharing')).toHaveLength(2));
    expect(put(sent, '/api/boards/3/sharing')[1]).toMatchObject({ shares: [SHARED.shares[0]] });
  });

  it('grows by a person, or by a role at one plant', async () => {
    const { person, sent } = show();
    await person.click(await screen.findByRole('button', { name: 'Share with a person' }));
    await person.click(await screen.findByRole('radio', { name: /Kofi Brand/ }));
    await waitFor(() => expect(put(sent, '/api/boards/3/sharing')).toHaveLength(1));
    expect(put(sent, '/api/boards/3/sharing')[0]).toMatchObject({
      shares: [...SHARED.shares, { to: 'person', personId: '5', may: 'see' }],
    });
    await person.click(await screen.findByRole('button', { name: 'Share with a role or a plant' }));
    await person.click(await screen.findByRole('radio', { name: /^Quayside/ }));
    expect(screen.getByText('Everybody at Quayside, also who gets the role later.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Share' }));
    await waitFor(() => expect(put(sent, '/api/boards/3/sharing')).toHaveLength(2));
    expect(put(sent, '/api/boards/3/sharing')[1]).toMatchObject({
      shares: [...SHARED.shares, { to: 'role', role: 'viewer', plantId: '7', may: 'see' }],
    });
  });

  it('is given to another owner after asking', async () => {
    const { person, sent } = show();
    await person.click(await screen.findByRole('button', { name: 'Give it to another owner' }));
    await person.click(await screen.findByRole('radio', { name: /Kofi Brand/ }));
    expect(put(sent, '/api/boards/3/sharing')).toEqual([]);
    await person.click(screen.getByRole('button', { name: 'Give it to Kofi Brand' }));
    await waitFor(() => expect(put(sent, '/api/boards/3/sharing')[0]).toMatchObject({ ownerId: '5' }));
  });

  it('is told, and not changed, by others who may change the board', async () => {
    show({}, { id: '9' });
    expect(await screen.findByText('Operators and above at Quayside: sees it')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Share with a person' })).toBeNull();
  });
});

describe('a board', () => {
  it('is copied by whoever sees it, and hides what only those who change it do', async () => {
    const { person, sent, onDone } = show(
      { mayChange: false, labels: ['Energy'] },
      { role: 'viewer', id: '8', answers: { 'POST /api/boards': makeBoard({ id: '12' }) } },
    );
    expect(await screen.findByText('Energy')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Put into the archive' })).toBeNull();
    expect(sent.some(({ path }) => path.endsWith('/sharing'))).toBe(false);
    await person.click(screen.getByRole('button', { name: 'Copy to a board of your own' }));
    await waitFor(() => expect(mockRouter.push).toHaveBeenCalledWith('/boards/12'));
    expect(sent.find(({ method }) => method === 'POST')?.body).toMatchObject({
      title: 'Wash house, copy',
      shares: [],
    });
    expect(onDone).toHaveBeenCalled();
  });

  it('gets labels by a tap or by typing, and goes into the archive', async () => {
    const { person, sent } = show(
      { labels: ['Daily'] },
      { answers: { 'PUT /api/boards/3/labels': undefined, 'PUT /api/boards/3/archived': undefined } },
    );
    await person.click(await screen.findByRole('checkbox', { name: 'Energy' }));
    await waitFor(() => expect(put(sent, '/api/boards/3/labels')).toEqual([{ labels: ['Daily', 'Energy'] }]));
    await person.type(screen.getByLabelText('New label'), ' Morning round ');
    await person.click(screen.getByRole('button', { name: 'Add the label' }));
    await waitFor(() =>
      expect(put(sent, '/api/boards/3/labels').at(-1)).toEqual({ labels: ['Daily', 'Morning round'] }),
    );
    await person.click(screen.getByRole('button', { name: 'Put into the archive' }));
    await waitFor(() => expect(put(sent, '/api/boards/3/archived')).toEqual([{ archived: true }]));
  });

  it('lists its versions and opens an earlier one to look at', async () => {
    const { person, onDone } = show();
    expect(await screen.findByText('as it is now, 1 readout added')).toBeTruthy();
    expect(screen.getByText('the oldest that is kept')).toBeTruthy();
    await person.click(screen.getByText('back to version 1, 1 readout added'));
    expect(mockRouter.setParams).toHaveBeenCalledWith({ version: '2' });
    expect(onDone).toHaveBeenCalled();
  });
});

describe('a board as files', () => {
  it('goes out as one workbook, and readout by readout, as it is looked at', async () => {
    const note = makeReadout('n 1', 'note', { text: 'Words', title: 'A note' });
    const figure = makeReadout('r1', 'figure', {
      title: 'Washed',
      measures: [{ metricId: '1', summary: 'mean', per: null }],
    });
    const document = { ...makeBoard({}).document, readouts: [figure, note] };
    const { person } = show({ document }, { answers: { 'GET /api/metrics': [] } });
    await person.click(await screen.findByRole('button', { name: 'All numbers (XLSX)' }));
    expect(mockDownload).toHaveBeenLastCalledWith('/api/boards/3/numbers.xlsx?window=rolling+7+day');
    await person.click(screen.getByRole('button', { name: 'One readout' }));
    await person.click(screen.getByRole('link', { name: 'Washed' }));
    await person.click(screen.getByRole('button', { name: 'Workbook (XLSX)' }));
    expect(mockDownload).toHaveBeenLastCalledWith(
      '/api/boards/3/readouts/r1.xlsx?window=rolling+7+day&width=720&theme=day&scale=2&bare=false',
    );
    // Of words there are no rows.
    await person.click(screen.getByRole('link', { name: 'A note' }));
    const files = within(screen.getByRole('group', { name: 'A note as a file' }));
    expect(files.getAllByRole('button').map(({ textContent }) => textContent)).toEqual([
      'Picture (PNG)',
      'Drawing (SVG)',
    ]);
    await person.click(files.getByRole('button', { name: 'Picture (PNG)' }));
    expect(mockDownload.mock.lastCall?.[0]).toMatch(/readouts\/n%201\.png\?/);
  });
});
