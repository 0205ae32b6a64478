import { screen, waitFor, within } from '@testing-library/react';
import type { RemovedMetric, Role } from '@vivid-beacon/core';
import { renderScreen } from '../../testing/renderScreen';
import { RemovedScreen } from './RemovedScreen';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
jest.mock('expo-router', () => ({ useRouter: () => ({ push: jest.fn(), navigate: jest.fn() }) }));

const removed = (id: string, part: Partial<RemovedMetric> = {}): RemovedMetric => ({
  id,
  name: 'Steam meter',
  assetName: 'Boiler',
  plantName: 'Quayside',
  zone: 'UTC',
  unit: 't',
  removedAt: Date.UTC(2026, 10, 19),
  samples: 12_345,
  firstDay: Date.UTC(2026, 1, 3),
  lastDay: Date.UTC(2026, 10, 18),
  alarms: 3,
  taken: null,
  ...part,
});

function show(role: Role) {
  return renderScreen(<RemovedScreen />, {
    'GET /api/session': signedIn(personOf(role, 'Ines Varga', '1')),
    'GET /api/removed-metrics': {
      items: [removed('7'), removed('8', { name: 'Gas', taken: 'Another metric bears its name now.' })],
      total: 2,
    },
    'GET /api/removals': {
      items: [
        {
          kind: 'asset',
          id: '7',
          name: 'Old boiler',
          place: 'Quayside / Old boiler',
          removedAt: 0,
          taken: null,
        },
        { kind: 'board', id: '7', name: 'Steam', place: 'Ines Varga', removedAt: 0, taken: null },
      ],
      total: 2,
    },
    'POST /api/boards/7/restoration': undefined,
    'POST /api/removed-metrics/7/restoration': undefined,
    'DELETE /api/removed-metrics/7': undefined,
  });
}

describe('removed metrics', () => {
  it('are restored by an analyst, who erases none', async () => {
    const { person, sent } = show('analyst');
    const row = await screen.findByText('Steam meter, Boiler');
    expect(row).toBeTruthy();
    expect(screen.queryByRole('button', { name: /^Erase/ })).toBeNull();
    expect(screen.getByRole('button', { name: 'Restore Gas, Boiler' }).getAttribute('aria-disabled')).toBe(
      'true',
    );
    await person.click(screen.getByRole('button', { name: 'Restore Steam meter, Boiler' }));
    await waitFor(() => expect(sent.map(({ path }) => path)).toContain('/api/removed-metrics/7/restoration'));
  });

  it('stand beside assets, boards and indicators, each restored as its kind', async () => {
    const { person, sent } = show('analyst');
    expect(await screen.findByText(/^asset · Quayside \/ Old boiler · removed/)).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Restore board Steam' }));
    await waitFor(() => expect(sent.map(({ path }) => path)).toContain('/api/boards/7/restoration'));
  });

  it('are erased by an administrator only after reading what goes and typing the name', async () => {
    const { person, sent } = show('administrator');
    await person.click(await screen.findByRole('button', { name: 'Erase Steam meter, Boiler' }));
    const tray = await screen.findByRole('dialog');
    expect(tray.textContent!.replace(/\s/g, ' ')).toContain('12,345 samples');
    expect(tray.textContent).toContain('3 alarms with their history');
    const erase = within(tray).getByRole('button', { name: 'Erase for good' });
    expect(erase.getAttribute('aria-disabled')).toBe('true');
    await person.type(within(tray).getByLabelText(/^Type "Steam meter"/), 'steam meter');
    await person.click(erase);
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'DELETE')?.path).toContain('/api/removed-metrics/7'),
    );
  });
});
