import { screen, waitFor } from '@testing-library/react';
import type { Alarm, AlarmEvent, Role } from '@vivid-beacon/core';
import { madeAlarm } from '../testing/madeAlarm';
import { Refused, renderScreen, type Answers } from '../testing/renderScreen';
import { AlarmScreen } from './AlarmScreen';
// Imported here, so that no query waits for the script the screen loads lazily.
import './boardScreens';
import { personOf, signedIn } from '../testing/signedIn';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: mockPush, navigate: jest.fn() }) }));

const HOUR = 3_600_000;
const NOW = Date.now();
const alarm = (part: Partial<Alarm> = {}): Alarm =>
  madeAlarm('7', NOW, {
    ruleName: 'Ironer 2 hot',
    toDo: 'Close the steam valve by a quarter turn.',
    raisedAt: NOW - 2 * HOUR,
    latestValue: 209,
    ...part,
  });
const event = (id: string, part: Partial<AlarmEvent>): AlarmEvent => ({
  id,
  at: NOW - HOUR,
  kind: 'raised',
  personName: null,
  remark: '',
  value: null,
  ...part,
});

function show(role: Role, part: Partial<Alarm> = {}, answers: Answers = {}) {
  return renderScreen(<AlarmScreen alarmId="7" />, {
    'GET /api/session': signedIn(personOf(role, 'Dele Marsh', '1')),
    'GET /api/alarms/7': {
      alarm: alarm(part),
      events: [
        event('1', { value: 212 }),
        event('2', { kind: 'remark', personName: 'Ana Field', remark: 'Valve stuck' }),
      ],
      earlier: [alarm({ id: '6', raisedAt: NOW - 30 * HOUR, returnedAt: NOW - 29 * HOUR, state: 'normal' })],
    },
    'POST /api/alarms/7/acknowledgement': undefined,
    'POST /api/alarms/7/remarks': undefined,
    'POST /api/alarms/7/reset': undefined,
    'PUT /api/alarm-rules/3/aside': undefined,
    'DELETE /api/alarm-rules/3/aside': undefined,
    ...answers,
  });
}
const posted = (sent: readonly { method: string; path: string; body: unknown }[], path: string) =>
  sent.find((each) => each.method !== 'GET' && each.path.startsWith(path));

describe('an alarm', () => {
  it('says what stands, what is to be done and what has happened', async () => {
    show('operator');
    expect(await screen.findByText('Ironer 2 hot')).toBeTruthy();
    expect(screen.getByText('Breach for 2 h, not acknowledged')).toBeTruthy();
    expect(screen.getByText('209 °C')).toBeTruthy();
    expect(screen.getByText(/^Raised when it is above 205/)).toBeTruthy();
    expect(screen.getByText('Close the steam valve by a quarter turn.')).toBeTruthy();
    expect(screen.getByText('Raised at 212 °C')).toBeTruthy();
    expect(screen.getByText('Remark by Ana Field')).toBeTruthy();
    expect(screen.getByText(/Valve stuck$/)).toBeTruthy();
  });

  it('is acknowledged with a remark', async () => {
    const { person, sent } = show('operator');
    await person.click(await screen.findByRole('button', { name: 'Acknowledge' }));
    await person.type(await screen.findByLabelText('Remark (what you saw or did)'), 'Valve closed');
    await person.click(screen.getAllByRole('button', { name: 'Acknowledge' }).at(-1)!);
    await waitFor(() =>
      expect(posted(sent, '/api/alarms/7/acknowledgement')?.body).toEqual({ remark: 'Valve closed' }),
    );
  });

  it('says why it could not be acknowledged, and keeps the remark', async () => {
    const { person } = show(
      'operator',
      {},
      {
        'POST /api/alarms/7/acknowledgement': new Refused(409, {
          code: 'WRONG_STATE',
          message: 'This alarm is acknowledged already.',
        }),
      },
    );
    await person.click(await screen.findByRole('button', { name: 'Acknowledge' }));
    const field = await screen.findByLabelText<HTMLTextAreaElement>('Remark (what you saw or did)');
    await person.type(field, 'Valve closed');
    await person.click(screen.getAllByRole('button', { name: 'Acknowledge' }).at(-1)!);
    expect(
      await screen.findByText(/Could not acknowledge\. This alarm is acknowledged already/),
    ).toBeTruthy();
    expect(field.value).toBe('Valve closed');
  });

  it('can only be looked at by a viewer', async () => {
    show('viewer');
    expect(await screen.findByText('Ironer 2 hot')).toBeTruthy();
    for (const name of ['Acknowledge', 'Shelve', 'Flag'])
      expect(screen.queryByRole('button', { name })).toBeNull();
    expect(screen.queryByLabelText('Add a remark')).toBeNull();
  });

  it('that has latched waits for a reset', async () => {
    const { person, sent } = show('operator', { state: 'latchedAcknowledged', returnedAt: NOW - HOUR });
    await person.click(await screen.findByRole('button', { name: 'Reset' }));
    await waitFor(() => expect(posted(sent, '/api/alarms/7/reset')).toBeTruthy());
  });

  it('is shelved for some hours with a reason', async () => {
    const { person, sent } = show('operator');
    await person.click(await screen.findByRole('button', { name: 'Shelve' }));
    const shelve = (await screen.findAllByRole('button', { name: 'Shelve' })).at(-1)!;
    expect(shelve.getAttribute('aria-disabled')).toBe('true');
    // Taking a rule out of service is for analysts.
    expect(screen.queryByRole('radio', { name: 'Out of service' })).toBeNull();
    await person.click(screen.getByRole('radio', { name: '8 hours' }));
    await person.type(screen.getByLabelText('Reason'), 'Bed is being changed');
    await person.click(shelve);
    await waitFor(() =>
      expect(posted(sent, '/api/alarm-rules/3/aside')?.body).toMatchObject({
        metricId: '5',
        kind: 'shelved',
        forMs: 8 * HOUR,
        reason: 'Bed is being changed',
      }),
    );
  });

  it('is taken out of service by analysts', async () => {
    const { person, sent } = show('analyst');
    await person.click(await screen.findByRole('button', { name: 'Shelve' }));
    await person.click(await screen.findByRole('radio', { name: 'Out of service' }));
    await person.type(screen.getByLabelText('Reason'), 'Sensor is being replaced');
    await person.click(screen.getByRole('button', { name: 'Take out of service' }));
    await waitFor(() =>
      expect(posted(sent, '/api/alarm-rules/3/aside')?.body).toMatchObject({
        kind: 'outOfService',
        forMs: null,
      }),
    );
  });

  it.each([
    ['shelved', 'operator', true],
    ['outOfService', 'operator', false],
    ['outOfService', 'analyst', true],
    ['suppressed', 'administrator', false],
  ] as const)('that is %s can be put back by the %s: %s', async (state, role, can) => {
    const { person, sent } = show(role, {
      state,
      asideReason: 'Bed is being changed',
      shelvedUntil: NOW + HOUR,
    });
    const button = await screen.findByRole('button', { name: 'Reinstate' });
    expect(button.getAttribute('aria-disabled') !== 'true').toBe(can);
    expect(screen.getByText('Reason: Bed is being changed')).toBeTruthy();
    if (!can) return;
    await person.click(button);
    await waitFor(() => expect(posted(sent, '/api/alarm-rules/3/aside?metricId=5')?.method).toBe('DELETE'));
  });

  it('takes remarks, and leads to the times before', async () => {
    const { person, sent } = show('operator');
    const field = await screen.findByLabelText<HTMLTextAreaElement>('Add a remark');
    await person.type(field, 'Steam is low');
    await person.click(screen.getByRole('button', { name: /^Add/ }));
    await waitFor(() =>
      expect(posted(sent, '/api/alarms/7/remarks')?.body).toEqual({ remark: 'Steam is low' }),
    );
    await waitFor(() => expect(field.value).toBe(''));
    await person.click(screen.getByText(/^Breach for 1 h/));
    expect(mockPush).toHaveBeenCalledWith('/alarms/6');
  });

  it('says so when it cannot be read', async () => {
    show(
      'operator',
      {},
      {
        'GET /api/alarms/7': new Refused(404, { code: 'NOT_FOUND', message: 'This alarm does not exist.' }),
      },
    );
    expect(await screen.findByText(/This alarm does not exist/)).toBeTruthy();
  });
});
