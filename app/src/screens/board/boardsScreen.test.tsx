import { screen, waitFor } from '@testing-library/react';
import type { ListedBoard, Role } from '@vivid-beacon/core';
import { renderScreen, type Answers } from '../../testing/renderScreen';
import { BoardsScreen } from './BoardsScreen';
// Imported here, so that no query waits for the script the screen loads lazily.
import '../boardScreens';
import { listedBoard } from '../../testing/boards';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: mockPush, navigate: jest.fn() }) }));

const NOW = Date.now();
const board = (id: string, title: string, part: Partial<ListedBoard> = {}): ListedBoard =>
  listedBoard({ id, title, readouts: 8, updatedAt: NOW - 60_000, ...part });
const show = (role: Role, boards: readonly ListedBoard[], answers: Answers = {}) =>
  renderScreen(<BoardsScreen />, {
    'GET /api/session': signedIn(personOf(role, 'Dele Marsh', '1')),
    'GET /api/boards': boards,
    'GET /api/boards/labels': [],
    ...answers,
  });

describe('the boards', () => {
  it('say how many readouts each has and whose it is, and lead there', async () => {
    const { person } = show('viewer', [board('1', 'Dryers'), board('2', 'Lines', { readouts: 1 })]);
    expect(await screen.findByText(/^8 readouts, Ines Varga, /)).toBeTruthy();
    expect(screen.getByText(/^1 readout, /)).toBeTruthy();
    await person.click(screen.getByText('Lines'));
    expect(mockPush).toHaveBeenCalledWith('/boards/2');
  });

  it('are searched by title and owner', async () => {
    const { person } = show('viewer', [
      board('1', 'Dryers'),
      board('2', 'Lines', { ownerName: 'Marit Oduya' }),
    ]);
    const field = await screen.findByLabelText('Search boards');
    await person.type(field, 'marit');
    await waitFor(() => expect(screen.queryByText('Dryers')).toBeNull());
    expect(screen.getByText('Lines')).toBeTruthy();
    await person.type(field, ' oven');
    expect(await screen.findByText('Nothing matches these words.')).toBeTruthy();
  });

  it('are begun where there are none yet; only analysts begin one for everybody', async () => {
    const { person, unmount } = show('analyst', []);
    expect(await screen.findByText('No boards yet')).toBeTruthy();
    await person.click(screen.getAllByRole('button', { name: 'New board' }).at(-1)!);
    expect(await screen.findByRole('dialog', { name: 'New board' })).toBeTruthy();
    expect(await screen.findByRole('radio', { name: 'for everybody' })).toBeTruthy();
    unmount();
    const viewer = show('viewer', []);
    await viewer.person.click((await screen.findAllByRole('button', { name: 'New board' }))[0]);
    expect(await screen.findByRole('dialog', { name: 'New board' })).toBeTruthy();
    expect(screen.queryByRole('radio', { name: 'for everybody' })).toBeNull();
  });

  it('are listed by favourite, owner, archive and label', async () => {
    const { person, sent } = show(
      'viewer',
      [board('1', 'Dryers', { labels: ['Energy'], audience: 'owner' })],
      {
        'GET /api/boards/labels': [{ label: 'Energy', boards: 1 }],
        'PUT /api/boards/1/favourite': undefined,
      },
    );
    expect(await screen.findByText(/not shared · Energy$/)).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'Energy' }));
    await person.click(screen.getByRole('radio', { name: 'favourites' }));
    await waitFor(() =>
      expect(sent.some(({ path }) => /list=favourites/.test(path) && /label=Energy/.test(path))).toBe(true),
    );
    await person.click(screen.getByRole('button', { name: 'Dryers among your favourites' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')).toMatchObject({
        path: '/api/boards/1/favourite',
        body: { favourite: true },
      }),
    );
  });

  it('say why a list is empty', async () => {
    const { person } = show('viewer', []);
    await person.click(await screen.findByRole('radio', { name: 'archive' }));
    expect(await screen.findByText('Nothing is in the archive.')).toBeTruthy();
  });
});
