import { act, screen, waitFor, within } from '@testing-library/react';
import { encodeColumns, encodeTrend, type Metric, type Role, type TrendAnswer } from '@vivid-beacon/core';
import { Bytes, renderScreen, type Answers } from '../../testing/renderScreen';
import { useUndoStore } from '../../stores/undoStore';
import { MetricScreen } from './MetricScreen';
// Imported here, so that no query waits for the script the screen loads lazily.
import '../boardScreens';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
jest.mock('../../hooks/useWidth', () => ({ useWidth: () => [600, () => undefined] }));
const mockNavigate = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: mockNavigate, navigate: mockNavigate }) }));

const NOW = Date.UTC(2026, 10, 19, 6, 40);
const HOUR = 3_600_000;
const metric: Partial<Metric> = {
  id: '5',
  key: 'quayside.ironer-2.bed-temperature',
  name: 'Bed temperature',
  unit: '°C',
  assetId: '2',
  assetName: 'Ironer 2',
  zone: 'UTC',
  last: { t: NOW - 60_000, v: 196.4 },
};
const trend = (part: Partial<TrendAnswer> = {}): Bytes =>
  new Bytes(
    encodeTrend({
      window: { start: NOW - 7 * 24 * HOUR, end: NOW },
      zone: 'UTC',
      unit: '°C',
      now: NOW,
      t: [NOW - 2 * HOUR, NOW - HOUR],
      v: [190, 200],
      bucket: null,
      until: null,
      gaps: [],
      samples: 2,
      ...part,
    }),
  );
const samples = (count: number): Bytes =>
  new Bytes(
    encodeColumns({ total: count, offset: 0 }, [
      ['t', Array.from({ length: count }, (_, i) => NOW - (count - i) * 60_000)],
      ['v', Array.from({ length: count }, (_, i) => 190 + i)],
      ['q', Array.from({ length: count }, () => 0)],
    ]),
  );

function show(role: Role, part: Partial<Metric> = {}, answers: Answers = {}) {
  return renderScreen(<MetricScreen metricId="5" />, {
    'GET /api/session': signedIn(personOf(role, 'Ines Varga', '1')),
    'GET /api/metrics': [{ ...metric, ...part }],
    'POST /api/readings/trend': trend(),
    'GET /api/metrics/5/coverage': { zone: 'UTC', day: [NOW - 24 * HOUR], coverage: [0.5], samples: [700] },
    'GET /api/metrics/5/samples': samples(3),
    'GET /api/remarks': [],
    'DELETE /api/metrics/5': undefined,
    'POST /api/remarks': { id: '9' },
    ...answers,
  });
}

beforeEach(() => {
  jest.spyOn(Date, 'now').mockReturnValue(NOW);
  mockNavigate.mockClear();
});
afterEach(() => jest.restoreAllMocks());

describe('a metric', () => {
  it('tells what it is, its newest sample, its key and its course', async () => {
    const { sent } = show('viewer');
    expect(await screen.findByText(/^level, in °C, every 1 min, trusted for 10 min/)).toBeTruthy();
    expect(screen.getByText(/^196\.4 °C/)).toBeTruthy();
    expect(screen.getByText('quayside.ironer-2.bed-temperature')).toBeTruthy();
    await screen.findByText('in °C');
    const asked = sent.find(({ path }) => path === '/api/readings/trend')!.body;
    expect(asked).toMatchObject({
      measure: { metricId: '5', summary: 'mean', per: null },
      window: { kind: 'rolling', count: 7, unit: 'day' },
      bucket: null,
    });
  });

  it('asks for another window, a counter by its hours', async () => {
    const { person, sent } = show('viewer', { kind: 'register' });
    await person.click(await screen.findByRole('radio', { name: 'a year' }));
    await waitFor(() =>
      expect(sent.filter(({ path }) => path === '/api/readings/trend').at(-1)!.body).toMatchObject({
        measure: { summary: 'increase' },
        window: { kind: 'rolling', count: 1, unit: 'year' },
        bucket: 'day',
      }),
    );
  });

  it('gives its raw samples of the window as a table and as files', async () => {
    const { person, sent } = show('viewer');
    const links: string[] = [];
    jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      links.push(this.getAttribute('href')!);
    });
    await screen.findByRole('region', { name: 'Samples' });
    await waitFor(() =>
      expect(sent.some(({ path }) => path.startsWith('/api/metrics/5/samples?'))).toBe(true),
    );
    for (const format of ['CSV', 'XLSX', 'NDJSON']) {
      await person.click(screen.getByRole('button', { name: `Download samples as ${format}` }));
    }
    const [from, to] = [NOW - 7 * 24 * HOUR, NOW];
    expect(links).toEqual(
      ['csv', 'xlsx', 'ndjson'].map(
        (format) => `/api/exports/samples?metricIds=5&from=${from}&to=${to}&format=${format}`,
      ),
    );
  });

  it('says that a window has no samples', async () => {
    show('viewer', {}, { 'GET /api/metrics/5/samples': samples(0) });
    expect(await screen.findByText('No sample lies in this window.')).toBeTruthy();
  });

  it('is changed and removed by analysts, gets remarks of operators, and is looked at by viewers', async () => {
    const first = show('viewer');
    await screen.findByText(/^level, in °C/);
    expect(screen.queryByRole('button', { name: 'Edit metric' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Add a remark' })).toBeNull();
    first.unmount();
    const second = show('operator');
    await second.person.click(await screen.findByRole('button', { name: 'Add a remark' }));
    await second.person.type(await screen.findByLabelText('Remark'), 'Pads changed');
    await second.person.click(screen.getByRole('button', { name: 'Add the remark' }));
    await waitFor(() =>
      expect(second.sent.find(({ method }) => method === 'POST' && method !== undefined)).toBeTruthy(),
    );
    expect(
      second.sent.find(({ path, method }) => method === 'POST' && path === '/api/remarks')!.body,
    ).toEqual({
      assetId: '2',
      start: NOW - HOUR,
      end: NOW,
      kind: 'abnormal',
      text: 'Pads changed',
    });
    second.unmount();
  });

  it('is removed only after what rests on it was told, and can be put back', async () => {
    const { person, sent } = show(
      'analyst',
      {},
      {
        'GET /api/metrics/5/removal': [
          { kind: 'rule', total: 2, names: ['Bed hot', 'Bed silent'] },
          { kind: 'board', total: 7, names: ['Ironers', 'Beds', 'Night', 'Plants', 'Steam'] },
        ],
        'POST /api/removed-metrics/5/restoration': undefined,
      },
    );
    await person.click(
      await screen.findByRole('button', { name: 'Remove metric Bed temperature, Ironer 2' }),
    );
    const tray = await screen.findByRole('dialog');
    expect(await within(tray).findByText('2 rules are withdrawn, or no longer watch it')).toBeTruthy();
    expect(tray.textContent).toContain('and 2 more');
    expect(sent.some(({ method }) => method === 'DELETE')).toBe(false);
    await person.click(within(tray).getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(mockNavigate).toHaveBeenCalledWith('/data/assets/2'));
    expect(sent.some(({ method, path }) => method === 'DELETE' && path === '/api/metrics/5')).toBe(true);
    const { offer, actions } = useUndoStore.getState();
    expect(offer?.words).toBe('Bed temperature, Ironer 2 removed');
    await act(() => offer!.undo());
    expect(sent.map(({ path }) => path)).toContain('/api/removed-metrics/5/restoration');
    actions.dismiss();
  });

  it('that is gone says so', async () => {
    show('viewer', {}, { 'GET /api/metrics': [] });
    expect(await screen.findByText('This metric no longer exists.')).toBeTruthy();
  });

  it('of a temperature works out degree days when asked', async () => {
    const { person, sent } = show(
      'viewer',
      {},
      {
        'POST /api/metrics/5/degree-days': {
          zone: 'UTC',
          day: [NOW - 24 * HOUR],
          degreeDays: [7.5],
          total: 7.5,
          missing: 0,
        },
      },
    );
    await person.click(await screen.findByRole('button', { name: 'Calculate degree days' }));
    await waitFor(() => expect(sent.some(({ path }) => path.endsWith('/degree-days'))).toBe(true));
    expect(await screen.findAllByText(/7\.5/)).not.toHaveLength(0);
  });
});
