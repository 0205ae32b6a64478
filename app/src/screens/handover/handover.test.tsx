import { screen, waitFor } from '@testing-library/react';
import type { Alarm, Flag, Handover, Metric, Watch, Role } from '@vivid-beacon/core';
import { madeAlarm } from '../../testing/madeAlarm';
import { renderScreen, type Answers } from '../../testing/renderScreen';
import { QUIET_WATCH, watchOf } from '../../testing/usual';
import { WatchNeeds } from '../watch/WatchNeeds';
import { HandoverScreen } from './HandoverScreen';
import { handoverText } from './handoverText';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  usePathname: () => '/',
  useRouter: () => ({ push: mockPush, navigate: jest.fn() }),
}));

const HOUR = 3_600_000;
const NOW = Date.UTC(2026, 10, 19, 12);
const alarm = (id: string, part: Partial<Alarm> = {}): Alarm => madeAlarm(id, NOW, part);
const handover = {
  plantId: '1',
  plantName: 'Quayside',
  zone: 'UTC',
  now: NOW,
  shift: { name: 'Early', start: NOW - 6 * HOUR, end: NOW + 2 * HOUR },
  shifts: [
    { name: 'Early', start: NOW - 6 * HOUR, end: NOW + 2 * HOUR },
    { name: 'Night', start: NOW - 14 * HOUR, end: NOW - 6 * HOUR },
  ],
  raised: [alarm('1')],
  standing: [alarm('1')],
  setAside: [],
  openFlags: [],
  closedFlags: [],
  stops: [
    {
      id: '4',
      assetId: '2',
      assetName: 'Ironer 2',
      plantName: 'Quayside',
      zone: 'UTC',
      start: NOW - 2 * HOUR,
      end: NOW - HOUR,
      category: '',
      reason: 'Belt',
      note: '',
      enteredBy: 'x',
    },
  ],
  stoppedMs: HOUR,
  remarks: [],
  silent: { feeds: [], count: {} },
  notes: [{ id: '3', text: 'Soap is low', author: 'Marit', at: NOW - HOUR }],
} as unknown as Handover;
const session = (role: Role): Answers => ({
  'GET /api/session': signedIn(personOf(role, 'Dele', '1')),
});
const answers = (role: Role): Answers => ({
  ...session(role),
  'GET /api/on-watch': QUIET_WATCH,
  'GET /api/handover': handover,
  'POST /api/handover/notes': { id: '9' },
});

describe('shift handover', () => {
  it('shows what is open and what happened, another shift, and takes words for the next', async () => {
    const { person, sent } = renderScreen(<HandoverScreen />, answers('operator'));
    expect(await screen.findByText('Soap is low')).toBeTruthy();
    expect(screen.getByText('Ironer 2: Belt')).toBeTruthy();
    expect(screen.getByText('No rule is shelved or out of service.')).toBeTruthy();
    await person.type(
      await screen.findByRole('textbox', { name: 'Add a note for the next shift' }),
      'Trap B leaks',
    );
    await person.click(screen.getByRole('button', { name: 'Add the note for the next shift' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'POST')?.body).toEqual({
        plantId: '1',
        shift: handover.shift.start,
        text: 'Trap B leaks',
      }),
    );
    await person.click(screen.getByRole('radio', { name: /^Night/ }));
    await waitFor(() => expect(sent.at(-1)!.path).toContain(`shift=${NOW - 14 * HOUR}`));
  });

  it('lets viewers only read', async () => {
    renderScreen(<HandoverScreen />, answers('viewer'));
    await screen.findByText('Soap is low');
    expect(screen.queryByRole('textbox', { name: 'Add a note for the next shift' })).toBeNull();
  });

  it('can be sent on as text', () => {
    const text = handoverText(handover).replace(/[^\S\n]/g, ' ');
    expect(text).toMatch(/^Shift handover, Quayside, Early, /);
    expect(text).toContain('For the next shift\n- Soap is low (Marit)');
    expect(text).toContain('Active alarms (1)\n- Alarm 1: Ironer 2');
    expect(text).toContain('Stops in this shift (1, 1 h)\n- Ironer 2: Belt: 10:00 to 11:00');
    expect(text).toContain('Open flags (0)\nNo open flags.');
  });
});

describe('what needs a person now', () => {
  const watch = watchOf({
    now: NOW,
    plants: [],
    alarms: [
      alarm('1', { priority: 'low' }),
      alarm('2', { priority: 'high' }),
      alarm('3', { state: 'shelved' }),
    ],
    flags: [
      {
        id: '7',
        title: 'Trap B',
        plantId: '2',
        priority: 'normal',
        dueAt: NOW - HOUR,
        to: { name: 'Dele' },
        assetName: 'Boiler',
      } as Flag,
    ],
    indicators: [],
    silent: {
      feeds: [
        {
          id: '10',
          name: 'Steam',
          assetName: 'Boiler',
          plantId: '2',
          plantName: 'Foundry Lane',
          health: { quietMs: HOUR },
        } as Metric,
      ],
      count: { '2': 1 },
    },
    rulesOn: { '10': 2 },
  } as unknown as Partial<Watch>);

  it('stands in the order of urgency with why, is acknowledged at the thumb, and follows the plant', async () => {
    const { person, sent } = renderScreen(<WatchNeeds watch={watch} plant={null} watched />, {
      ...session('operator'),
      'POST /api/alarms/2/acknowledgement': undefined,
    });
    const titles = screen.getAllByRole('link').map(({ textContent }) => textContent!.replace(/\s/g, ' '));
    const order = ['Alarm 2', 'Trap B', 'Alarm 1', 'Boiler, steam'].map((name) =>
      titles.findIndex((title) => title.includes(name)),
    );
    expect(order).toEqual([0, 1, 2, 3]);
    expect(titles[0]).toContain('High priority, Breach for 1 h, not acknowledged. Ironer 2, Quayside');
    expect(titles[3]).toContain('2 alarm rules see nothing');
    expect(screen.getByText('1 shelved, suppressed or out of service')).toBeTruthy();
    await person.click(await screen.findByRole('button', { name: 'Acknowledge Alarm 2' }));
    await waitFor(() => expect(sent.some(({ path }) => path === '/api/alarms/2/acknowledgement')).toBe(true));
  });

  it('looks calm when all is clear, and claims nothing where nothing is watched', () => {
    const { rerender } = renderScreen(<WatchNeeds watch={watch} plant="3" watched />, session('viewer'));
    expect(screen.getByText('All clear. Nothing needs a person now.')).toBeTruthy();
    rerender(<WatchNeeds watch={watch} plant="3" watched={false} />);
    expect(screen.queryByText(/All clear/)).toBeNull();
    expect(screen.getByText(/no alarm rule watches anything yet/)).toBeTruthy();
  });
});
