import { screen, waitFor, within } from '@testing-library/react';
import type { Asset, HeardSeries, Metric, PushToken } from '@vivid-beacon/core';
import { Refused, renderScreen, type Answers } from '../../testing/renderScreen';
import { TokensScreen } from './TokensScreen';

jest.setTimeout(30_000);
const mockNavigate = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: jest.fn(), navigate: mockNavigate }) }));

const token = (part: Partial<PushToken> = {}): PushToken =>
  ({
    id: '4',
    name: 'Gateway of the wash house',
    createdBy: 'Dele Marsh',
    createdAt: 0,
    lastUsedAt: null,
    plantId: null,
    plantName: null,
    metrics: null,
    endsAt: null,
    waiting: 1,
    rule: { assetLabel: null, metricLabel: null, unknown: 'wait', parentId: null, collisions: 'last' },
    ...part,
  }) as PushToken;
const heard = (series: string, part: Partial<HeardSeries> = {}): HeardSeries =>
  ({
    series,
    name: series,
    labels: { line: '2' },
    metricId: null,
    firstHeard: 0,
    lastHeard: Date.now(),
    lastValue: 12.5,
    heard: 1,
    ...part,
  }) as HeardSeries;
const ASSETS = [
  { id: '1', name: 'Quayside', kind: 'plant', parentId: null, plantId: '1' },
  { id: '2', name: 'Washer 2', kind: 'machine', parentId: '1', plantId: '1' },
] as unknown as Asset[];
const METRICS = [
  { id: '7', name: 'Flow', assetName: 'Washer 2', plantName: 'Quayside', unit: 'L/min', origin: 'samples' },
  {
    id: '8',
    name: 'Flow per kg',
    assetName: 'Washer 2',
    plantName: 'Quayside',
    unit: 'L/kg',
    origin: 'derived',
  },
] as unknown as Metric[];

function show(answers: Answers = {}) {
  return renderScreen(<TokensScreen />, {
    'GET /api/push-tokens': [token()],
    'GET /api/push-tokens/4/heard': [heard('flow{line="2"}')],
    'GET /api/assets': ASSETS,
    'GET /api/metrics': METRICS,
    'POST /api/push-tokens/4/heard': { metricId: '7' },
    'PUT /api/push-tokens/4/rule': undefined,
    ...answers,
  });
}
const openSeries = 'Open the series of Gateway of the wash house';

describe('push tokens', () => {
  it('are limited to metrics that are chosen', async () => {
    const { person, sent } = show({ 'POST /api/push-tokens': { id: '5', token: 'vb_secret' } });
    await person.type(await screen.findByLabelText('Name of the sender'), 'Boiler');
    await person.click(screen.getByRole('radio', { name: 'some metrics' }));
    expect(screen.getByRole('button', { name: 'Create a token' }).getAttribute('aria-disabled')).toBe('true');
    await person.click(await screen.findByRole('radio', { name: /^Flow, Washer 2/ }));
    expect(screen.getByRole('button', { name: 'Take Flow, Washer 2 away' })).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Create a token' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'POST')?.body).toEqual({
        name: 'Boiler',
        plantId: null,
        metricIds: ['7'],
        endsAt: null,
      }),
    );
  });

  it('are shown once when they are made, and can be revoked', async () => {
    const { person, sent } = show({
      'POST /api/push-tokens': { id: '5', token: 'vb_secret' },
      'DELETE /api/push-tokens/4': undefined,
    });
    expect(
      await screen.findByText(/never used, writes at every plant, 1 series received but not mapped/),
    ).toBeTruthy();
    await person.type(screen.getByLabelText('Name of the sender'), 'Boiler');
    await person.click(screen.getByRole('button', { name: 'Create a token' }));
    const status = await screen.findByRole('status');
    expect(within(status).getByText('vb_secret')).toBeTruthy();
    expect(within(status).getByText(/not shown again/)).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('Name of the sender').value).toBe('');
    await person.click(screen.getByRole('button', { name: 'Revoke Gateway of the wash house' }));
    await person.click(within(await screen.findByRole('dialog')).getByRole('button', { name: 'Revoke' }));
    await waitFor(() => expect(sent.at(-1)).toMatchObject({ method: expect.stringMatching(/DELETE|GET/) }));
    expect(sent.some(({ method, path }) => method === 'DELETE' && path === '/api/push-tokens/4')).toBe(true);
  });

  it('say what is wrong with a name, and keep it', async () => {
    const { person } = show({
      'POST /api/push-tokens': new Refused(422, { code: 'BAD_INPUT', message: 'Give the sender a name' }),
    });
    await screen.findByText('Gateway of the wash house');
    await person.type(screen.getByLabelText('Name of the sender'), '  ');
    await person.click(screen.getByRole('button', { name: 'Create a token' }));
    expect(await screen.findByText('Give the sender a name')).toBeTruthy();
    expect(screen.queryByRole('status')).toBeNull();
  });
});

describe('series heard with a token', () => {
  it('wait with their last value until they are mapped to a metric that takes samples', async () => {
    const { person, sent } = show();
    await person.click(await screen.findByRole('button', { name: openSeries }));
    expect(await screen.findByText(/last value 12.5, .*; 1 sample not stored/)).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Map flow{line="2"}' }));
    // A derived metric is computed and takes no samples.
    expect(screen.queryByText('Flow per kg, Washer 2')).toBeNull();
    await person.click(await screen.findByText('Flow, Washer 2'));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'POST')?.body).toEqual({
        series: 'flow{line="2"}',
        metricId: '7',
      }),
    );
  });

  it('make a metric of an asset, named after the series', async () => {
    const { person, sent } = show();
    await person.click(await screen.findByRole('button', { name: openSeries }));
    await person.click(await screen.findByRole('button', { name: 'Map flow{line="2"}' }));
    await person.click(screen.getByRole('radio', { name: 'New metric of an asset' }));
    await person.click(await screen.findByText('Washer 2'));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'POST')?.body).toEqual({
        series: 'flow{line="2"}',
        make: { assetId: '2', name: 'flow{line="2"}', unit: '', kind: 'level', intervalMs: 60_000 },
      }),
    );
  });

  it('say what they feed, and can wait again', async () => {
    const { person, sent } = show({
      'GET /api/push-tokens/4/heard': [
        heard('flow', { metricId: '7' }),
        heard('gone', { metricId: '99' }),
        heard('late', { heard: 3, lastValue: null }),
      ],
      'POST /api/push-tokens/4/heard': { metricId: null },
    });
    await person.click(await screen.findByRole('button', { name: openSeries }));
    expect(await screen.findByText('feeds Flow, Washer 2, Quayside')).toBeTruthy();
    expect(screen.getByText('feeds a removed metric')).toBeTruthy();
    expect(screen.getByText(/last value none, .*; 3 samples not stored/)).toBeTruthy();
    expect(screen.getByText('1 not mapped, 2 mapped')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Change flow' }));
    await person.click(await screen.findByRole('button', { name: 'Unmap it' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'POST')?.body).toEqual({ series: 'flow', metricId: null }),
    );
  });

  it('keep the tray open and say why a mapping was refused', async () => {
    const { person } = show({
      'POST /api/push-tokens/4/heard': new Refused(404, {
        code: 'NOT_FOUND',
        message: 'This token has never sent such a series.',
      }),
    });
    await person.click(await screen.findByRole('button', { name: openSeries }));
    await person.click(await screen.findByRole('button', { name: 'Map flow{line="2"}' }));
    await person.click(await screen.findByText('Flow, Washer 2'));
    expect(await screen.findByText('This token has never sent such a series.')).toBeTruthy();
    expect(screen.getByText('Flow, Washer 2')).toBeTruthy();
  });

  it('are shown thirty at first', async () => {
    const many = Array.from({ length: 40 }, (_, i) => heard(`series ${i}`));
    const { person } = show({ 'GET /api/push-tokens/4/heard': many });
    await person.click(await screen.findByRole('button', { name: openSeries }));
    expect(await screen.findByText('series 29')).toBeTruthy();
    expect(screen.queryByText('series 30')).toBeNull();
    await person.click(screen.getByRole('button', { name: 'Show more' }));
    expect(screen.getByText('series 39')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Show more' })).toBeNull();
  });
});

describe('how the text of a token is matched', () => {
  it('asks for a place only where labels name assets, and saves what was changed', async () => {
    const { person, sent } = show();
    await person.click(await screen.findByRole('button', { name: openSeries }));
    const save = await screen.findByRole('button', { name: 'Save the rule' });
    expect(save.getAttribute('aria-disabled')).toBe('true');
    expect(screen.queryByText('Assets are found or created under')).toBeNull();
    await person.type(screen.getByLabelText('Label that names the asset'), 'machine');
    expect(screen.getByText('Assets are found or created under')).toBeTruthy();
    await person.click(await screen.findByRole('radio', { name: /^Quayside/ }));
    await person.click(screen.getByRole('radio', { name: 'gets asset and metric by its labels' }));
    await person.click(save);
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toEqual({
        assetLabel: 'machine',
        metricLabel: null,
        unknown: 'make',
        parentId: '1',
        collisions: 'last',
      }),
    );
  });
});
