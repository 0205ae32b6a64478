import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { windowText, type Board, type Readout, type Role } from '@vivid-beacon/core';
import { emptyReadout } from '@vivid-beacon/core/src/boards';
import { Refused, renderScreen, type Answers, type SentRequest } from '../../testing/renderScreen';
import { BoardScreen } from './BoardScreen';
import { useUndoStore } from '../../stores/undoStore';
import { makeBoard } from '../../testing/boards';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
const mockRouter = { push: jest.fn(), navigate: jest.fn(), replace: jest.fn(), setParams: jest.fn() };
let mockParams: Record<string, string> = {};
jest.mock('expo-router', () => ({
  useRouter: () => mockRouter,
  useLocalSearchParams: () => mockParams,
}));

const note = (id: string, title: string): Readout => ({
  ...emptyReadout(id, 'note'),
  title,
  text: `About ${title}`,
});
const TWO = [note('a', 'Shift rules'), note('b', 'Who to call')];

/** A server that keeps the board as it is saved. */
function show(role: Role, readouts: readonly Readout[] = TWO, answers: Answers = {}) {
  let kept = makeBoard({
    mayChange: role !== 'viewer',
    document: { ...makeBoard().document, readouts: [...readouts] },
  });
  return renderScreen(<BoardScreen boardId="3" />, {
    'GET /api/session': signedIn(personOf(role, 'Ines Varga', '1')),
    'GET /api/boards/3': () => kept,
    'PUT /api/boards/3': ({ body }: SentRequest) => {
      kept = { ...kept, ...(body as Pick<Board, 'title' | 'document'>), revision: kept.revision + 1 };
      return kept;
    },
    'DELETE /api/boards/3': undefined,
    'GET /api/assets': [{ id: '2', parentId: null, name: 'Quayside' }],
    'GET /api/metrics': [],
    ...answers,
  });
}
const saved = (sent: readonly SentRequest[]) =>
  sent
    .filter(({ method }) => method === 'PUT')
    .map(({ body }) => body as Pick<Board, 'title' | 'document' | 'revision'>);
const idsOf = ({ document }: Pick<Board, 'document'>): string[] => document.readouts.map(({ id }) => id);

beforeEach(() => {
  mockParams = {};
  Object.values(mockRouter).forEach((each) => each.mockClear());
});

describe('a board', () => {
  it('shows its readouts to everybody, and tools only to those who may change it', async () => {
    const { unmount } = show('viewer');
    expect(await screen.findByText('About Shift rules')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Add readout' })).toBeNull();
    unmount();
    const { person } = show('analyst');
    await person.click(await screen.findByRole('button', { name: 'Add readout' }));
    expect(mockRouter.push).toHaveBeenCalledWith('/boards/3/readouts/new');
  });

  it('with nothing on it says how to begin', async () => {
    show('analyst', []);
    expect(await screen.findByText('Nothing on this board yet')).toBeTruthy();
  });

  it('is arranged: a readout moves, is duplicated and removed, and each step can be undone', async () => {
    const { person, sent } = show('analyst');
    await person.click(await screen.findByRole('button', { name: 'Arrange and change' }));
    await person.click(screen.getByRole('button', { name: 'Move Shift rules towards the end' }));
    await waitFor(() => expect(saved(sent)).toHaveLength(1));
    expect(idsOf(saved(sent)[0])).toEqual(['b', 'a']);
    expect(saved(sent)[0].revision).toBe(4);
    await waitFor(() =>
      expect(screen.getByRole('button', { name: 'Undo' }).getAttribute('aria-disabled')).not.toBe('true'),
    );
    await person.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(saved(sent)).toHaveLength(2));
    expect(idsOf(saved(sent)[1])).toEqual(['a', 'b']);
    expect(saved(sent)[1].revision).toBe(5);
    await waitFor(() =>
      expect(screen.getByRole('button', { name: 'Redo' }).getAttribute('aria-disabled')).not.toBe('true'),
    );
    await person.click(screen.getByRole('button', { name: 'More for Who to call' }));
    await person.click(await screen.findByRole('button', { name: 'Duplicate' }));
    await waitFor(() => expect(saved(sent)).toHaveLength(3));
    expect(saved(sent)[2].document.readouts.map(({ title }) => title)).toEqual([
      'Shift rules',
      'Who to call',
      'Who to call',
    ]);
    await person.click(screen.getByRole('button', { name: 'More for Shift rules' }));
    const more = await screen.findByRole('dialog', { name: /Shift rules/ });
    await person.click(within(more).getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(saved(sent)).toHaveLength(4));
    expect(idsOf(saved(sent)[3])).not.toContain('a');
  });

  it('keeps the window that is looked at when it is saved so', async () => {
    mockParams = { window: windowText({ kind: 'toDate', unit: 'day' }) };
    const { person, sent } = show('analyst');
    await person.click(await screen.findByRole('button', { name: 'Arrange and change' }));
    await person.click(screen.getByRole('button', { name: /^Save the title, window, scope and hours/ }));
    await waitFor(() => expect(saved(sent)).toHaveLength(1));
    expect(saved(sent)[0].document.window).toEqual({ kind: 'toDate', unit: 'day' });
  });

  it('that somebody else has saved says so', async () => {
    const { person } = show('analyst', TWO, {
      'PUT /api/boards/3': new Refused(409, {
        code: 'CHANGED_MEANWHILE',
        message: 'Somebody else has saved this board since you opened it.',
      }),
    });
    await person.click(await screen.findByRole('button', { name: 'Arrange and change' }));
    await person.click(screen.getByRole('button', { name: 'Move Who to call towards the start' }));
    expect(await screen.findByText(/^Could not save the board\. Somebody else has saved/)).toBeTruthy();
  });

  it('is removed only after a question, and can be put back', async () => {
    const { person, sent } = show('analyst', TWO, {
      'GET /api/removals/board/3': [{ kind: 'leads', total: 1, names: ['Rewash share, Quayside'] }],
      'POST /api/boards/3/restoration': undefined,
    });
    await person.click(await screen.findByRole('button', { name: 'Arrange and change' }));
    await person.click(screen.getByRole('button', { name: /^Remove board / }));
    const tray = await screen.findByRole('dialog');
    expect(await within(tray).findByText('An indicator leads to it, and no longer will')).toBeTruthy();
    expect(sent.some(({ method }) => method === 'DELETE')).toBe(false);
    await person.click(within(tray).getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(mockRouter.replace).toHaveBeenCalledWith('/boards'));
    const { offer, actions } = useUndoStore.getState();
    await act(() => offer!.undo());
    expect(sent.map(({ path }) => path)).toContain('/api/boards/3/restoration');
    actions.dismiss();
  });

  it('follows keys: windows, arranging, help', async () => {
    show('analyst');
    await screen.findByRole('button', { name: 'Add readout' });
    act(() => void fireEvent.keyDown(document.body, { key: 'd' }));
    expect(mockRouter.setParams.mock.calls.at(-1)[0].window).toBe(
      windowText({ kind: 'toDate', unit: 'day' }),
    );
    act(() => void fireEvent.keyDown(document.body, { key: 'e' }));
    expect(await screen.findByRole('button', { name: 'Done arranging' })).toBeTruthy();
    act(() => void fireEvent.keyDown(document.body, { key: '?' }));
    expect(await screen.findByText(/Keys/)).toBeTruthy();
  });

  it('that is gone says so, with the way back', async () => {
    const { person } = show('viewer', TWO, {
      'GET /api/boards/3': new Refused(404, {
        code: 'NOT_FOUND',
        message: 'This board does not exist any more.',
      }),
    });
    expect(await screen.findByText('This board does not exist any more.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Back to boards' }));
    expect(mockRouter.navigate).toHaveBeenCalledWith('/boards');
  });

  it('that is no longer shared while it is open is not shown any further', async () => {
    let shared = true;
    const words = 'This board does not exist any more, or is not shared with you.';
    const kept = makeBoard({ document: { ...makeBoard().document, readouts: TWO } });
    const { client } = show('viewer', TWO, {
      'GET /api/boards/3': () => (shared ? kept : new Refused(404, { code: 'NOT_FOUND', message: words })),
    });
    expect(await screen.findByText('About Shift rules')).toBeTruthy();
    shared = false;
    await act(() => client.invalidateQueries({ queryKey: ['boards'] }));
    expect(await screen.findByText(words)).toBeTruthy();
    expect(screen.queryByText('About Shift rules')).toBeNull();
  });
});

describe('an earlier version', () => {
  const earlier = {
    revision: 2,
    title: 'Old wash house',
    document: { ...makeBoard().document, readouts: [note('c', 'Old rules')] },
    savedBy: 'Dele Marsh',
    savedAt: 0,
    unseen: [],
  };

  it('is looked at without tools, and gone back to', async () => {
    mockParams = { version: '2' };
    const { person, sent } = show('analyst', TWO, {
      'GET /api/boards/3/versions/2': earlier,
      'POST /api/boards/3/versions/2/restoration': makeBoard(),
    });
    expect(await screen.findByText('About Old rules')).toBeTruthy();
    expect(screen.queryByText('About Shift rules')).toBeNull();
    expect(screen.queryByRole('button', { name: 'Add readout' })).toBeNull();
    expect(
      screen.getByText(/^Version 2, saved .* by Dele Marsh\. It was called Old wash house\./),
    ).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Go back to this version' }));
    await waitFor(() => expect(mockRouter.setParams).toHaveBeenCalledWith({ version: undefined }));
    expect(sent.find(({ method }) => method === 'POST')?.body).toEqual({ revision: 4 });
  });

  it('is only looked at by those who may not change the board', async () => {
    mockParams = { version: '2' };
    show('viewer', TWO, { 'GET /api/boards/3/versions/2': earlier });
    expect(await screen.findByText('About Old rules')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Go back to this version' })).toBeNull();
  });
});
