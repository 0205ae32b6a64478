import { screen, waitFor, within } from '@testing-library/react';
import type { Flag, FlagEvent, Person } from '@vivid-beacon/core';
import { flagMarks, flagsAt } from '@vivid-beacon/core/src/pictures';
import { Refused, renderScreen, type Answers } from '../../testing/renderScreen';
import { CauseList } from './CauseList';
import { FlagScreen } from './FlagScreen';
import { FlagsScreen } from './FlagsScreen';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  usePathname: () => '/',
  useRouter: () => ({ push: mockPush, navigate: jest.fn() }),
}));

const HOUR = 3_600_000;
const NOW = Date.now();
const INES: Person = { id: '1', name: 'Ines', role: 'analyst' };
const DELE: Person = { id: '2', name: 'Dele', role: 'operator' };
const MARIT: Person = { id: '3', name: 'Marit', role: 'operator' };
const flag = (id: string, part: Partial<Flag> = {}): Flag => ({
  id,
  title: `Flag ${id}`,
  note: '',
  kind: 'breach',
  priority: 'normal',
  status: 'open',
  alarmId: null,
  metricId: '10',
  assetName: 'Dryer 1',
  place: 'Quayside / Dryer 1',
  plantId: '1',
  zone: 'UTC',
  from: INES,
  to: DELE,
  dueAt: NOW + HOUR,
  createdAt: NOW - HOUR,
  evidence: null,
  closedAt: null,
  outcome: null,
  outcomeNote: null,
  cause: null,
  minutesSpent: null,
  ...part,
});
const as = (person: Person): Answers => ({
  'GET /api/session': signedIn(personOf(person.role, person.name, person.id)),
});
const event = (kind: FlagEvent['kind'], personName: string, remark = ''): FlagEvent => ({
  id: kind,
  at: NOW - HOUR,
  kind,
  personName,
  remark,
});

describe('the list of flags', () => {
  const open = [
    flag('1', { to: DELE, dueAt: NOW + HOUR }),
    flag('2', { to: DELE, dueAt: NOW - 2 * HOUR }),
    flag('3', { to: MARIT, from: DELE, priority: 'high' }),
  ];

  it('shows what waits for me with the late one first, what I gave out, and everybody’s', async () => {
    const { person: user } = renderScreen(<FlagsScreen />, { ...as(DELE), 'GET /api/flags': open });
    const titles = () => screen.getAllByText(/^Flag \d$/).map((each) => each.textContent);
    await waitFor(() => expect(titles()).toEqual(['Flag 2', 'Flag 1']));
    expect(screen.getByText('Overdue 2 h')).toBeTruthy();
    await user.click(screen.getByRole('radio', { name: 'Given out by me' }));
    expect(titles()).toEqual(['Flag 3']);
    expect(screen.getByText(/^Marit · high priority · due /)).toBeTruthy();
    await user.click(screen.getByRole('radio', { name: 'Everybody’s' }));
    expect(titles()).toEqual(['Flag 2', 'Flag 3', 'Flag 1']);
    // An operator has no access to the list of causes.
    expect(screen.queryByRole('button', { name: 'Causes' })).toBeNull();
  });

  it('asks for the closed ones when they are wanted', async () => {
    const closed = flag('9', { status: 'notProblem', closedAt: NOW, outcome: 'noFault', outcomeNote: '' });
    const { person: user, sent } = renderScreen(<FlagsScreen />, {
      ...as(DELE),
      'GET /api/flags': [closed],
    });
    await screen.findByText('No flag waits for you.');
    await user.click(screen.getByRole('radio', { name: 'Closed' }));
    expect(await screen.findByText(/^You · Not a problem, /)).toBeTruthy();
    expect(sent.some(({ path }) => path.startsWith('/api/flags?state=closed'))).toBe(true);
  });
});

describe('one flag', () => {
  const evidence = {
    title: 'Gas used, Dryer 1',
    address: '/boards/4?window=x',
    window: { start: NOW - 5 * HOUR, end: NOW - 4 * HOUR },
    numbers: [{ name: 'Mean', text: '81.3 kWh' }],
  };
  const detail = (part: Partial<Flag> = {}) => ({
    'GET /api/flags/7': {
      flag: flag('7', { evidence, ...part }),
      events: [event('handed', 'Ines'), event('comment', 'Dele', 'Filter is full.')],
    },
    'GET /api/flag-causes': [{ id: '5', name: 'Lint in the filter' }],
  });

  it('shows its frozen evidence, the way to the same view, and its history', async () => {
    const { person: user } = renderScreen(<FlagScreen flagId="7" />, { ...as(DELE), ...detail() });
    expect(await screen.findByText('81.3 kWh')).toBeTruthy();
    expect(screen.getByText('Comment by Dele')).toBeTruthy();
    expect(screen.getByText(/Filter is full\.$/)).toBeTruthy();
    await user.click(screen.getByRole('link', { name: /The view this came from/ }));
    expect(mockPush).toHaveBeenCalledWith('/boards/4?window=x');
  });

  it('is taken in hand, and closed with outcome, cause and time spent', async () => {
    const { person: user, sent } = renderScreen(<FlagScreen flagId="7" />, {
      ...as(DELE),
      ...detail(),
      'POST /api/flags/7/in-hand': flag('7', { status: 'inHand' }),
      'POST /api/flags/7/outcome': flag('7'),
    });
    await user.click(await screen.findByRole('button', { name: 'Take in hand' }));
    await user.click(screen.getByRole('button', { name: 'Close with an outcome' }));
    const tray = within(await screen.findByRole('dialog'));
    await user.click(tray.getByRole('radio', { name: 'Mended' }));
    await user.click(await tray.findByRole('radio', { name: 'Lint in the filter' }));
    await user.type(tray.getByLabelText('Time spent'), '25');
    await user.click(tray.getByRole('button', { name: 'Close the flag' }));
    await waitFor(() =>
      expect(sent.find(({ path }) => path.endsWith('/outcome'))?.body).toEqual({
        outcome: 'mended',
        note: '',
        causeId: '5',
        minutesSpent: 25,
      }),
    );
    expect(sent.some(({ path }) => path.endsWith('/in-hand'))).toBe(true);
  });

  it('lets others read and comment, not close', async () => {
    renderScreen(<FlagScreen flagId="7" />, { ...as(MARIT), ...detail() });
    expect(await screen.findByLabelText('Add a comment')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Close with an outcome' })).toBeNull();
  });

  it('says why the server refused', async () => {
    const { person: user } = renderScreen(<FlagScreen flagId="7" />, {
      ...as(DELE),
      ...detail(),
      'POST /api/flags/7/in-hand': new Refused(409, {
        code: 'WRONG_STATE',
        message: 'This flag is in hand or closed already.',
      }),
    });
    await user.click(await screen.findByRole('button', { name: 'Take in hand' }));
    expect((await screen.findByRole('alert')).textContent).toBe('This flag is in hand or closed already.');
  });
});

describe('the list of causes', () => {
  it('grows and shrinks', async () => {
    const { person: user, sent } = renderScreen(<CauseList />, {
      'GET /api/flag-causes': [{ id: '5', name: 'Lint in the filter' }],
      'POST /api/flag-causes': { id: '6', name: 'Belt worn' },
      'DELETE /api/flag-causes/5': undefined,
    });
    await user.type(await screen.findByLabelText('Add a cause'), 'Belt worn');
    await user.click(screen.getByRole('button', { name: 'Add the cause' }));
    await user.click(screen.getByRole('button', { name: 'Remove Lint in the filter from the list' }));
    await waitFor(() =>
      expect(sent.filter(({ method }) => method !== 'GET').map(({ method, body }) => [method, body])).toEqual(
        [
          ['POST', { name: 'Belt worn' }],
          ['DELETE', undefined],
        ],
      ),
    );
  });
});

describe('flags on a time line', () => {
  it('stand where their evidence begins, or when they were handed out, and are told all along it', () => {
    const window = { start: 1000, end: 2000 };
    const marks = flagMarks([
      flag('1', { evidence: { title: '', address: '', window, numbers: [] } }),
      flag('2', { createdAt: 5000, closedAt: 6000 }),
    ]);
    expect(marks.map(({ id, at, open }) => [id, at, open])).toEqual([
      ['1', 1000, true],
      ['2', 5000, false],
    ]);
    expect(flagsAt(marks, 1999).map(({ id }) => id)).toEqual(['1']);
    expect(flagsAt(marks, 2000)).toEqual([]);
    expect(flagsAt(marks, 5000).map(({ id }) => id)).toEqual(['2']);
  });
});
