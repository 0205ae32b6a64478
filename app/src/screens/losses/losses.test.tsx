import { screen, waitFor } from '@testing-library/react';
import type { IndicatorLoss, Role } from '@vivid-beacon/core';
import { renderScreen, type Answers } from '../../testing/renderScreen';
import { LossesScreen } from './LossesScreen';
import { lossWords } from './lossWords';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  usePathname: () => '/',
  useRouter: () => ({ push: mockPush, navigate: jest.fn() }),
}));

const HOUR = 3_600_000;
const loss = (id: string, part: Partial<IndicatorLoss> = {}): IndicatorLoss => ({
  id,
  name: `Loss ${id}`,
  assetId: '2',
  assetName: 'Wash house',
  place: 'Quayside / Wash house',
  metricId: '10',
  window: { start: 0, end: 168 * HOUR },
  plantId: '1',
  breachMs: 20 * HOUR,
  cautionMs: 10 * HOUR,
  nodataMs: 0,
  clearMs: 70 * HOUR,
  by: null,
  ...part,
});
const answers = (role: Role): Answers => ({
  'GET /api/session': signedIn(personOf(role, 'Dele', '5')),
  'GET /api/indicators/time-by-level': [loss('1'), loss('2', { breachMs: 0, cautionMs: 0 })],
  'GET /api/people': [{ id: '6', name: 'Marit Oduya', role: 'operator' }],
  'POST /api/flags': {},
});
const plain = (text: string): string => text.replace(/\s/g, ' ');

describe('losses', () => {
  it('lead to the indicator, and are handed to a person with the numbers as they are', async () => {
    const { person, sent } = renderScreen(<LossesScreen />, answers('operator'));
    await person.click(await screen.findByRole('link', { name: /Loss 1/ }));
    expect(mockPush).toHaveBeenCalledWith('/losses/1');
    // What lost nothing is not flagged.
    expect(screen.queryByRole('button', { name: /^Flag Loss 2/ })).toBeNull();
    await person.click(screen.getByRole('button', { name: 'Flag Loss 1, Quayside / Wash house' }));
    await person.click(await screen.findByRole('radio', { name: /Marit Oduya/ }));
    await person.click(screen.getByRole('button', { name: 'Hand out the flag' }));
    await waitFor(() => {
      const body = sent.find(({ method, path }) => method === 'POST' && path === '/api/flags')?.body as {
        evidence: { numbers: { text: string }[] };
      };
      expect(body).toMatchObject({
        kind: 'loss',
        assetId: '2',
        metricId: '10',
        toPersonId: '6',
        evidence: { address: '/indicators/1', window: { start: 0, end: 168 * HOUR } },
      });
      expect(body.evidence.numbers.map(({ text }) => plain(text))[0]).toBe('20 h');
    });
  });

  it('are only looked at by viewers', async () => {
    renderScreen(<LossesScreen />, answers('viewer'));
    await screen.findByRole('link', { name: /Loss 1/ });
    expect(screen.queryByRole('button', { name: /^Flag/ })).toBeNull();
  });

  it('say what is known and what is not', () => {
    expect(plain(lossWords(loss('1', { nodataMs: 2 * HOUR })))).toBe(
      '20 h in Breach (20 %), 10 h in Caution, 2 h without data, sample by sample',
    );
    expect(lossWords(loss('1', { breachMs: 0, cautionMs: 0, clearMs: 0 }))).toBe('No data');
  });
});
