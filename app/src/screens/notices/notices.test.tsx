import { screen, waitFor } from '@testing-library/react';
import type { Notice, Role } from '@vivid-beacon/core';
import { renderScreen, type Answers } from '../../testing/renderScreen';
import { noticeState } from './noticeWords';
import { OutboxScreen } from './OutboxScreen';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: mockPush, navigate: jest.fn() }) }));

const NOW = Date.now();
const notice = (part: Partial<Notice> = {}): Notice => ({
  id: '1',
  personName: 'Dele Marsh',
  channel: 'email',
  kind: 'breach',
  subject: 'Ironer 2 hot',
  body: 'Ironer 2 is at 212 °C.',
  address: '/alarms/7',
  createdAt: NOW - 60_000,
  dueAt: NOW - 60_000,
  sentAt: null,
  sentTo: null,
  attempts: 0,
  lastError: null,
  digestId: null,
  caughtAt: null,
  ...part,
});
const answers = (role: Role, notices: Notice[]): Answers => ({
  'GET /api/session': signedIn(personOf(role, 'Dele Marsh', '1')),
  'GET /api/notices': { notices, standIns: { email: true, text: false } },
  'GET /api/notice-wish': {
    byEmail: true,
    byText: false,
    phone: null,
    quiet: null,
    zone: 'Europe/London',
    email: 'dele@hollowmere.example',
  },
  'PUT /api/notice-wish': undefined,
});

describe('the outbox', () => {
  it('says how far each notice has come, and opens what it is about', async () => {
    const { person } = renderScreen(
      <OutboxScreen />,
      answers('operator', [
        notice({ sentAt: NOW, sentTo: 'dele@hollowmere.example', caughtAt: NOW, attempts: 1 }),
      ]),
    );
    await person.click(await screen.findByRole('link', { name: /Ironer 2 hot/ }));
    expect(await screen.findByText('Ironer 2 is at 212 °C.')).toBeTruthy();
    expect(screen.getByText(/^received it/)).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Open what it is about' }));
    expect(mockPush).toHaveBeenCalledWith('/alarms/7');
    expect(screen.getByText(/^E-mail is kept here/)).toBeTruthy();
    expect(screen.queryByRole('radio', { name: 'To everybody' })).toBeNull();
  });

  it('lets analysts look at those of everybody', async () => {
    const { person, sent } = renderScreen(<OutboxScreen />, answers('analyst', []));
    await person.click(await screen.findByRole('radio', { name: 'To everybody' }));
    await waitFor(() => expect(sent.some(({ path }) => path.endsWith('of=all'))).toBe(true));
    expect(screen.getByText('No notices yet.')).toBeTruthy();
  });

  it('sets ways and quiet hours, and asks for a number that can be reached', async () => {
    const { person, sent } = renderScreen(<OutboxScreen />, answers('operator', []));
    await person.click(await screen.findByRole('button', { name: 'Change how you receive notices' }));
    await person.click(await screen.findByRole('checkbox', { name: 'Text message' }));
    const save = screen.getByRole('button', { name: 'Save' });
    expect(save.getAttribute('aria-disabled')).toBe('true');
    expect(screen.getByText('Give a number for text messages')).toBeTruthy();
    await person.type(screen.getByLabelText('Number for text messages'), '+44 1632 960123');
    await person.click(screen.getByRole('radio', { name: 'Quiet hours' }));
    await person.click(save);
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toEqual({
        byEmail: true,
        byText: true,
        phone: '+44 1632 960123',
        quiet: { from: '22:00', to: '06:00' },
        zone: 'Europe/London',
      }),
    );
  });
});

describe('the state of a notice', () => {
  it.each([
    [{ sentAt: NOW }, /^sent /],
    [{ digestId: '9' }, 'bundled into a digest'],
    [{ dueAt: NOW + 3_600_000 }, /^waits until /],
    [{}, 'on its way'],
    [{ attempts: 2, lastError: 'ECONNREFUSED' }, /^tried 2 times \(ECONNREFUSED\), again /],
  ] as [Partial<Notice>, RegExp | string][])('is told of %j', (part, words) => {
    expect(noticeState(notice(part), 'UTC', NOW)).toEqual(
      typeof words === 'string' ? words : expect.stringMatching(words),
    );
  });
});
