import { screen, waitFor } from '@testing-library/react';
import type { ListedBoard, Role } from '@vivid-beacon/core';
import { renderScreen, type Answers } from '../../testing/renderScreen';
import { BoardsScreen } from './BoardsScreen';
// Imported here, so that no query waits for the script the screen loads lazily.
import '../boardScreens';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: mockPush, navigate: jest.fn() }) }));

const NOW = Date.now();
const board = (id: string, title: string, part: Partial<ListedBoard> = {}): ListedBoard => ({
  id,
  title,
  readouts: 8,
  ownerName: 'Ines Varga',
  updatedAt: NOW - 60_000,
  ...part,
});
const show = (role: Role, boards: readonly ListedBoard[], answers: Answers = {}) =>
  renderScreen(<BoardsScreen />, {
    'GET /api/session': signedIn(personOf(role, 'Dele Marsh', '1')),
    'GET /api/boards': boards,
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

  it('are begun by analysts where there are none yet', async () => {
    const { person } = show('analyst', []);
    expect(await screen.findByText('No boards yet')).toBeTruthy();
    await person.click(screen.getAllByRole('button', { name: 'New board' }).at(-1)!);
    expect(await screen.findByRole('dialog', { name: 'New board' })).toBeTruthy();
  });

  it('are only looked at by viewers', async () => {
    show('viewer', []);
    expect(await screen.findByText('No boards yet')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'New board' })).toBeNull();
  });
});
