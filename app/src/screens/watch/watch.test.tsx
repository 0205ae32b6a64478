import { screen, waitFor } from '@testing-library/react';
import type { Alarm, Flag, IndicatorReading, Metric, Role, Watch } from '@vivid-beacon/core';
import { madeAlarm } from '../../testing/madeAlarm';
import { renderScreen, type Answers } from '../../testing/renderScreen';
import { DEFAULT_METRIC, watchOf } from '../../testing/usual';
import { coastLights } from '../coastLights';
import { OnWatchScreen } from '../OnWatchScreen';
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
const flag = (id: string, part: Partial<Flag> = {}): Flag =>
  ({
    id,
    title: `Flag ${id}`,
    note: '',
    kind: 'breach',
    alarmId: null,
    metricId: null,
    evidence: null,
    outcomeNote: null,
    cause: null,
    minutesSpent: null,
    status: 'open',
    priority: 'normal',
    assetName: 'Washer 1',
    place: 'Quayside / Washer 1',
    plantId: '1',
    zone: 'UTC',
    from: { id: '2', name: 'Ana Field', role: 'analyst' },
    to: { id: '1', name: 'Dele Marsh', role: 'operator' },
    dueAt: NOW + HOUR,
    createdAt: NOW - HOUR,
    closedAt: null,
    outcome: null,
    ...part,
  }) as Flag;
const measure = { metricId: '10', summary: 'sum', per: null } as const;
const rolling = { kind: 'rolling', count: 24, unit: 'hour' } as const;
const DEFINED = {
  measure,
  window: rolling,
  definition: {
    name: 'Indicator',
    assetId: '1',
    measure,
    window: rolling,
    judge: { kind: 'limits', band: { direction: 'lower', caution: 100, breach: 120, target: 90 } },
    target: { kind: 'none' },
    reference: { kind: 'before' },
    decimals: 0,
  },
};
const indicator = (
  id: string,
  level: IndicatorReading['reading']['level'],
  part: Partial<IndicatorReading> = {},
) =>
  ({
    id,
    ...DEFINED,
    name: `Indicator ${id}`,
    assetName: 'Quayside',
    place: 'Quayside',
    plantId: '1',
    ownerName: null,
    version: 1,
    target: 90,
    band: { direction: 'lower', caution: 100, breach: 120, target: 90 },
    decimals: 0,
    reading: {
      value: level === 'nodata' ? null : 110,
      unit: 'kWh',
      level,
      coverage: 1,
      partial: false,
      previous: 100,
      asOf: NOW,
      now: NOW,
      provenance: {
        formula: 'total of Gas (Quayside)',
        window: { start: NOW - 24 * HOUR, end: NOW },
        zone: 'UTC',
        minimumCoverage: 0.75,
        shared: null,
        parts: [],
      },
    },
    ...part,
  }) as unknown as IndicatorReading;
const feed = (id: string, part: Partial<Metric> = {}): Metric =>
  ({
    ...DEFAULT_METRIC,
    id,
    name: 'Flow',
    assetName: 'Washer 2',
    plantId: '1',
    plantName: 'Quayside',
    zone: 'UTC',
    last: { t: NOW - 2 * HOUR, v: 1 },
    health: { state: 'silent', quietMs: 2 * HOUR, lagMs: null, flatMs: null },
    unit: 'm³/h',
    ...part,
  }) as unknown as Metric;
const watch = (part: Partial<Watch> = {}): Watch =>
  watchOf({
    now: NOW,
    plants: [
      { id: '1', name: 'Quayside', zone: 'UTC' },
      { id: '2', name: 'Foundry Lane', zone: 'UTC' },
    ],
    ...part,
  });

function show(given: Watch, role: Role = 'operator', answers: Answers = {}) {
  return renderScreen(<OnWatchScreen />, {
    'GET /api/session': signedIn(personOf(role, 'Dele Marsh', '1')),
    'GET /api/on-watch': given,
    ...answers,
  });
}

describe('On watch', () => {
  it('is calm when nothing needs a person', async () => {
    show(watch());
    expect(await screen.findByText('All clear. Nothing needs a person now.')).toBeTruthy();
    expect(screen.getByText('No flag is due later.')).toBeTruthy();
    expect(screen.getByText('All feeds are reporting.')).toBeTruthy();
  });

  it('puts the most urgent first and says why each is there', async () => {
    show(
      watch({
        alarms: [
          alarm('1', { priority: 'low', level: 'caution' }),
          alarm('2', { priority: 'high' }),
          alarm('3', { state: 'acknowledged' }),
          alarm('4', { state: 'shelved' }),
        ],
        flags: [flag('5', { dueAt: NOW - 3 * HOUR })],
        silent: { feeds: [feed('6'), feed('7')], count: { p: 2 } },
        rulesOn: { '6': 2 },
      }),
    );
    const buttons = await screen.findAllByRole('button', { name: /^Acknowledge Alarm/ });
    expect(buttons.map((each) => each.getAttribute('aria-label'))).toEqual([
      'Acknowledge Alarm 2',
      'Acknowledge Alarm 1',
    ]);
    expect(
      screen.getByText(/^High priority, Breach for 1 h, not acknowledged\. Ironer 2, Quayside, 210 °C$/),
    ).toBeTruthy();
    expect(screen.getByText('1 shelved, suppressed or out of service')).toBeTruthy();
    expect(screen.getByText('1 more acknowledged and still active')).toBeTruthy();
    // A late flag is among them; a silent feed only where rules see nothing because of it.
    expect(screen.getByText('Flag 5')).toBeTruthy();
    expect(screen.getAllByText(/^Silent for 2 h, 2 alarm rules see nothing\. Quayside$/)).toHaveLength(1);
    expect(screen.getAllByText(/^Quayside, last heard/)).toHaveLength(2);
  });

  it('acknowledges at the thumb, and leads to the alarm', async () => {
    const { person, sent } = show(watch({ alarms: [alarm('2')] }), 'operator', {
      'POST /api/alarms/2/acknowledgement': undefined,
    });
    await person.click(await screen.findByRole('button', { name: 'Acknowledge Alarm 2' }));
    await waitFor(() => expect(sent.some(({ path }) => path === '/api/alarms/2/acknowledgement')).toBe(true));
    await person.click(screen.getByText('Alarm 2'));
    expect(mockPush).toHaveBeenCalledWith('/alarms/2');
  });

  it('lets viewers look only', async () => {
    show(watch({ alarms: [alarm('2')] }), 'viewer');
    expect(await screen.findByText('Alarm 2')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Acknowledge Alarm 2' })).toBeNull();
  });

  it('shows flags that are due later, one’s own first', async () => {
    show(
      watch({
        flags: [
          flag('8', { to: { id: '2', name: 'Ana Field', role: 'operator' } as Flag['to'] }),
          flag('9', { dueAt: NOW + 5 * HOUR }),
        ],
      }),
    );
    const rows = await screen.findAllByText(/^Flag [89]$/);
    expect(rows.map((each) => each.textContent)).toEqual(['Flag 9', 'Flag 8']);
  });

  it('shows the five worst indicators, then all, and opens how a number was made', async () => {
    const { person } = show(
      watch({
        indicators: Array.from({ length: 7 }, (_, i) => indicator(String(i), i === 0 ? 'breach' : 'clear')),
      }),
    );
    expect(await screen.findByText('Indicator 4')).toBeTruthy();
    expect(screen.queryByText('Indicator 5')).toBeNull();
    await person.click(screen.getByRole('button', { name: 'Show all 7' }));
    expect(screen.getByText('Indicator 6')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: '110 kWh, Indicator 0, Breach. How it was made' }));
    expect(await screen.findByText(/total of Gas \(Quayside\)/)).toBeTruthy();
  });

  it('counts what is not shown of very many, and leads to the whole lists', async () => {
    const { person } = show(
      watch({
        alarms: [alarm('1')],
        alarmCounts: [
          { plantId: '1', state: 'unacknowledged', level: 'breach', stands: true, n: 1200 },
          { plantId: '1', state: 'acknowledged', level: 'caution', stands: true, n: 40 },
        ],
        flags: [flag('5', { dueAt: NOW - 3 * HOUR })],
        flagCounts: { '1': { late: 60, later: 70 } },
        indicators: Array.from({ length: 7 }, (_, i) => indicator(String(i), 'breach')),
        indicatorCounts: { '1': { clear: 300, caution: 0, breach: 9, nodata: 0 } },
      }),
    );
    // The counts speak of 1,200 alarms and 60 late flags; one of each is listed.
    expect(await screen.findByText('1,260')).toBeTruthy();
    expect(screen.getByText('40 more acknowledged and still active')).toBeTruthy();
    expect(screen.getByText('309 in all')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Show the worst 7' })).toBeTruthy();
    expect(screen.getByText('70')).toBeTruthy();
    expect(screen.getByText('1,209 breaches')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: '1,199 more alarms waiting' }));
    expect(mockPush).toHaveBeenCalledWith('/alarms');
    await person.click(screen.getByRole('button', { name: '59 more overdue flags' }));
    expect(mockPush).toHaveBeenCalledWith('/flags');
  });

  it('looks at one plant when its light is chosen', async () => {
    const { person } = show(watch({ alarms: [alarm('1'), alarm('2', { plantId: '2' })] }));
    await screen.findByText('Alarm 1');
    await person.click(screen.getByRole('button', { name: /Foundry Lane/ }));
    expect(screen.queryByText('Alarm 1')).toBeNull();
    expect(screen.getByText('Alarm 2')).toBeTruthy();
  });
});

describe('the lights of the coast', () => {
  it.each([
    ['nothing', {}, 'clear', 'all clear'],
    ['an alarm', { alarms: [alarm('1')] }, 'breach', '1 breach'],
    [
      'alarm and indicator',
      { alarms: [alarm('1')], indicators: [indicator('2', 'breach')] },
      'breach',
      '2 breaches',
    ],
    ['what is set aside', { alarms: [alarm('1', { state: 'shelved' })] }, 'clear', 'all clear'],
    ['one that is clear again', { alarms: [alarm('1', { returnedAt: NOW })] }, 'clear', 'all clear'],
    ['no data', { indicators: [indicator('2', 'nodata')] }, 'nodata', '1 without data'],
  ] as const)('show %s', (_, part, level, words) => {
    expect(coastLights(watch(part as Partial<Watch>))[0]).toMatchObject({ level, words });
  });
});
