import { useUndoStore } from '../stores/undoStore';
import { act, screen, waitFor, within } from '@testing-library/react';
import { DEFAULT_RULE, type Alarm, type AlarmRule, type Role } from '@vivid-beacon/core';
import { madeAlarm } from '../testing/madeAlarm';
import { Refused, renderScreen, type Answers } from '../testing/renderScreen';
import { AlarmsScreen } from './AlarmsScreen';
import { personOf, signedIn } from '../testing/signedIn';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  usePathname: () => '/',
  useRouter: () => ({ push: mockPush, navigate: jest.fn() }),
}));

const NOW = Date.now();
const HOUR = 3_600_000;
const alarm = (id: string, part: Partial<Alarm> = {}): Alarm => madeAlarm(id, NOW, part);
const metric = { id: '5', name: 'Bed temperature', unit: '°C', assetId: '2', assetName: 'Ironer 2' };
const rule = (id: string): AlarmRule => ({
  ...DEFAULT_RULE,
  id,
  name: `Rule ${id}`,
  metricId: '5',
  test: { kind: 'limit', side: 'above', limit: 205, deadband: 4 },
  unit: '°C',
  decimals: 0,
  inForce: true,
  inForceFrom: NOW - 48 * HOUR,
  watched: { metrics: 1, suppressed: 0, aside: 0, how: null, problem: null },
});

function show(role: Role, answers: Answers = {}) {
  return renderScreen(<AlarmsScreen />, {
    'GET /api/session': signedIn(personOf(role, 'Dele Marsh', '1')),
    'GET /api/alarms': [
      alarm('1'),
      alarm('2', { state: 'shelved', shelvedUntil: NOW + HOUR, level: 'caution' }),
      alarm('3', { state: 'normal', returnedAt: NOW - HOUR / 2 }),
    ],
    'GET /api/alarm-rules': [rule('8')],
    'GET /api/metrics': [metric],
    'DELETE /api/alarm-rules/8': undefined,
    ...answers,
  });
}

describe('the alarms', () => {
  beforeEach(() => mockPush.mockClear());

  it('that stand are apart from those that are over, and those set aside are counted apart', async () => {
    const { person } = show('operator');
    expect(await screen.findByText('1, and 1 set aside')).toBeTruthy();
    expect(within(screen.getByRole('region', { name: 'Past' })).getByText('1')).toBeTruthy();
    expect(screen.getAllByText(/^Ironer 2, Quayside, /).length).toBe(3);
    await person.click(screen.getByText('Alarm 3'));
    expect(mockPush).toHaveBeenCalledWith('/alarms/3');
  });

  it('say so when none stands and none has been', async () => {
    show('viewer', { 'GET /api/alarms': [] });
    expect(await screen.findByText('All clear. No active alarms.')).toBeTruthy();
    expect(screen.getByText('No past alarms yet.')).toBeTruthy();
  });

  it('claim nothing where no rule watches, and lead an analyst to the first', async () => {
    const { person } = show('analyst', { 'GET /api/alarms': [], 'GET /api/alarm-rules': [] });
    expect(await screen.findByText('Nothing is watched yet')).toBeTruthy();
    expect(screen.queryByText(/All clear/)).toBeNull();
    await person.click(screen.getByRole('button', { name: 'Write a rule' }));
    expect(mockPush).toHaveBeenCalledWith('/alarms/rules/new');
  });

  it('lead an analyst to a new rule, and nobody else', async () => {
    const { person, unmount } = show('analyst');
    await person.click(await screen.findByRole('button', { name: 'New rule' }));
    expect(mockPush).toHaveBeenCalledWith('/alarms/rules/new');
    unmount();
    show('operator');
    await screen.findByText('1, and 1 set aside');
    expect(screen.queryByRole('button', { name: 'New rule' })).toBeNull();
  });

  it('let an analyst withdraw a rule after asking, and put it in force again', async () => {
    const { person, sent } = show('analyst', { 'POST /api/alarm-rules': { id: '9' } });
    await person.click(await screen.findByRole('button', { name: 'Withdraw Rule 8' }));
    const tray = await screen.findByRole('dialog');
    expect(sent.some(({ method }) => method === 'DELETE')).toBe(false);
    // What keeps it stands first.
    const [keep, withdraw] = within(tray).getAllByRole('button', { name: /^(Keep it|Withdraw)$/ });
    expect(keep.textContent).toBe('Keep it');
    await person.click(withdraw);
    await waitFor(() => expect(useUndoStore.getState().offer?.words).toBe('Rule 8 withdrawn'));
    expect(sent.some(({ method, path }) => method === 'DELETE' && path === '/api/alarm-rules/8')).toBe(true);
    await act(() => useUndoStore.getState().offer!.undo());
    expect(
      sent.find(({ method, path }) => method === 'POST' && path === '/api/alarm-rules')?.body,
    ).toMatchObject({
      name: 'Rule 8',
      replaces: null,
      test: { kind: 'limit', limit: 205 },
    });
    useUndoStore.getState().actions.dismiss();
  });

  it('lead to notices, health and handover', async () => {
    const { person } = show('viewer');
    for (const [name, address] of [
      ['Notices', '/alarms/notices'],
      ['Alarm health', '/alarms/health'],
      ['Shift handover', '/handover'],
    ]) {
      await person.click(await screen.findByRole('button', { name }));
      expect(mockPush).toHaveBeenLastCalledWith(address);
    }
  });

  it('say why they could not be read, and are read again when asked', async () => {
    const refused = new Refused(503, { code: 'NOT_READY', message: 'The database does not answer.' });
    const { person, sent } = show('viewer', { 'GET /api/alarms': refused });
    const standing = within(await screen.findByRole('region', { name: 'Active' }));
    expect(await standing.findByText('The database does not answer.')).toBeTruthy();
    const asked = () => sent.filter(({ path }) => path.startsWith('/api/alarms?list=standing')).length;
    const before = asked();
    await person.click(standing.getByRole('button', { name: 'Try again' }));
    expect(asked()).toBe(before + 1);
  });

  it('are searched together with the rules, and say when nothing is found', async () => {
    const { person, sent } = show('viewer', { 'GET /api/alarm-rules': [rule('8'), rule('9')] });
    expect(await screen.findByText('Rule 9')).toBeTruthy();
    await person.type(screen.getByLabelText('Search alarms and rules'), '9');
    await waitFor(() => expect(screen.queryByText('Rule 8')).toBeNull());
    expect(screen.getByText('Rule 9')).toBeTruthy();
    expect(screen.getAllByText('Nothing matches these words.')).toHaveLength(2);
    // Searched once typing pauses, for alarms and rules alike.
    expect(
      sent.filter(({ path }) => path.includes('search=9')).map(({ path }) => path.split('&')[0]),
    ).toEqual(expect.arrayContaining(['/api/alarms?list=standing', '/api/alarms?list=over']));
  });

  it('come page by page', async () => {
    const many = Array.from({ length: 60 }, (_, i) => alarm(String(100 + i)));
    const { person } = show('viewer', { 'GET /api/alarms': many });
    const standing = within(await screen.findByRole('region', { name: 'Active' }));
    expect(await standing.findByText('60')).toBeTruthy();
    expect(standing.getAllByText(/^Alarm 1\d\d$/)).toHaveLength(50);
    await person.click(standing.getByRole('button', { name: 'Show more of 60' }));
    await waitFor(() => expect(standing.getAllByText(/^Alarm 1\d\d$/)).toHaveLength(60));
    expect(standing.queryByRole('button', { name: /Show more/ })).toBeNull();
  });
});
