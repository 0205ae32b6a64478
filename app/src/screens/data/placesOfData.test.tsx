import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Asset, CoverageByDay, IntakeWithoutLines, JobEntry, Metric, Role } from '@vivid-beacon/core';
import { Refused, renderScreen, type Answers } from '../../testing/renderScreen';
import { AssetsScreen } from './AssetsScreen';
import { CoverageStrip } from './CoverageStrip';
import { FactorsScreen } from './FactorsScreen';
import { FeedsScreen } from './FeedsScreen';
import { FilesScreen } from './FilesScreen';
import { JobLog } from './JobLog';
// Imported here, so that no query waits for the script the screen loads lazily.
import './fileScreens';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  usePathname: () => '/',
  useRouter: () => ({ push: mockPush, navigate: jest.fn() }),
}));
const mockDownload = jest.fn();
jest.mock('../download', () => ({ download: (address: string) => mockDownload(address) as unknown }));

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const NOW = Date.now();
const session = (role: Role): Answers => ({
  'GET /api/session': signedIn(personOf(role, 'Ines Varga', '1')),
});
const metric = (id: string, part: Partial<Metric> = {}): Metric =>
  ({
    id,
    key: `quayside.metric-${id}`,
    name: `Metric ${id}`,
    assetId: '2',
    assetName: 'Washer 1',
    plantName: 'Quayside',
    zone: 'UTC',
    unit: 'kW',
    decimals: 1,
    kind: 'level',
    origin: 'samples',
    intervalMs: 60_000,
    last: { t: NOW - HOUR, v: 4.25 },
    health: { state: 'reporting', lagMs: null, quietMs: null, flatMs: null },
    ...part,
  }) as unknown as Metric;
const health = (state: string, part: object = {}): Metric['health'] =>
  ({ state, lagMs: null, quietMs: null, flatMs: null, ...part }) as unknown as Metric['health'];
const asset = (id: string, name: string, parentId: string | null, kind = 'machine'): Asset =>
  ({
    id,
    name,
    kind,
    parentId,
    plantId: '1',
    zone: 'UTC',
    ownZone: null,
    attributes: {},
  }) as unknown as Asset;

describe('factors', () => {
  const factor = {
    id: '3',
    name: 'CO2 of gas',
    unit: 'kg/kWh',
    source: 'supplier',
    values: [
      { from: '2025-01-01', value: 0.21 },
      { from: '2026-01-01', value: 0.2 },
    ],
  };

  it('show what holds now, and are only read by those who may not change them', async () => {
    renderScreen(<FactorsScreen />, { ...session('viewer'), 'GET /api/factors': [factor] });
    expect(await screen.findByText('0.2 kg/kWh from 2026-01-01, 2 values · supplier')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Add a factor' })).toBeNull();
  });

  it('are added with values by date, in either notation, once each line can be read', async () => {
    const { person, sent } = renderScreen(<FactorsScreen />, {
      ...session('analyst'),
      'GET /api/factors': [],
      'POST /api/factors': { id: '4' },
    });
    expect(await screen.findByText('There are no factors yet.')).toBeTruthy();
    await person.click(await screen.findByRole('button', { name: 'Add a factor' }));
    await person.type(screen.getByLabelText('Name of the factor'), 'Heat of steam');
    await person.type(screen.getByLabelText('Unit of the factor'), 'kWh/kg');
    const values = screen.getByLabelText('Values, one a line, each from a date on');
    const save = screen.getByRole('button', { name: 'Save factor' });
    expect(save.getAttribute('aria-disabled')).toBe('true');
    fireEvent.change(values, { target: { value: '2026-01-01: 0,65\nJuly: 0.7' } });
    expect(await screen.findByText(/^"July" must be a date and a value/)).toBeTruthy();
    expect(save.getAttribute('aria-disabled')).toBe('true');
    fireEvent.change(values, { target: { value: '2026-01-01: 0,65\n\n2026-07-01: 0.7' } });
    await person.click(save);
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'POST')?.body).toMatchObject({
        name: 'Heat of steam',
        unit: 'kWh/kg',
        values: [
          { from: '2026-01-01', value: 0.65 },
          { from: '2026-07-01', value: 0.7 },
        ],
      }),
    );
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Save factor' })).toBeNull());
  });

  it('stay open with what was typed when they are refused', async () => {
    const { person } = renderScreen(<FactorsScreen />, {
      ...session('analyst'),
      'GET /api/factors': [factor],
      'POST /api/factors': new Refused(422, {
        code: 'BAD_INPUT',
        message: 'There is already a factor named "x".',
      }),
    });
    await person.click(await screen.findByText('CO2 of gas'));
    expect(screen.getByLabelText<HTMLInputElement>('Name of the factor').value).toBe('CO2 of gas');
    await person.click(screen.getByRole('button', { name: 'Save factor' }));
    expect(await screen.findByText(/There is already a factor named/)).toBeTruthy();
  });
});

describe('feeds', () => {
  const rows = [
    metric('1'),
    metric('2', { health: health('silent', { quietMs: 3 * HOUR }) }),
    metric('3', { health: health('never'), last: null }),
    metric('4', { health: health('flat', { flatMs: 5 * HOUR }), name: 'Steam pressure' }),
    metric('5', { origin: 'derived' }),
  ];

  it('put those first that need a look, and say what is the matter', async () => {
    renderScreen(<FeedsScreen />, { ...session('viewer'), 'GET /api/metrics': rows });
    expect(await screen.findByText(/silent for 3 h/)).toBeTruthy();
    expect(screen.getByText(/the same value for 5 h/)).toBeTruthy();
    expect(screen.getByText(/nothing has come yet/)).toBeTruthy();
    const titles = screen.getAllByText(/, Washer 1$/).map((each) => each.textContent);
    // Derived metrics are computed: they have no feed.
    expect(titles).toEqual([
      'Metric 2, Washer 1',
      'Steam pressure, Washer 1',
      'Metric 3, Washer 1',
      'Metric 1, Washer 1',
    ]);
    expect(screen.queryByRole('button', { name: 'Push tokens' })).toBeNull();
  });

  it('are found by state and by any of their names', async () => {
    const { person } = renderScreen(<FeedsScreen />, { ...session('analyst'), 'GET /api/metrics': rows });
    await person.type(await screen.findByLabelText('Search metrics'), 'steam QUAYSIDE');
    await waitFor(() => expect(screen.getAllByText(/, Washer 1$/)).toHaveLength(1));
    await person.clear(screen.getByLabelText('Search metrics'));
    await person.click(screen.getByRole('radio', { name: /^Silent 1$/i }));
    await waitFor(() =>
      expect(screen.getAllByText(/, Washer 1$/).map((each) => each.textContent)).toEqual([
        'Metric 2, Washer 1',
      ]),
    );
    await person.click(screen.getByText('Metric 2, Washer 1'));
    expect(mockPush).toHaveBeenCalledWith('/data/metrics/2');
  });
});

describe('files that were brought in', () => {
  const intake = (part: Partial<IntakeWithoutLines> = {}): IntakeWithoutLines =>
    ({
      id: '9',
      fileName: 'march.csv',
      status: 'done',
      startedBy: 'Ines Varga',
      startedAt: NOW - DAY,
      added: 1200,
      unchanged: 3,
      corrected: 0,
      refusedCount: 2,
      rows: 1205,
      notes: {},
      metrics: [],
      ...part,
    }) as IntakeWithoutLines;

  it('say what became of every row, give the balance, and can be undone', async () => {
    const { person } = renderScreen(<FilesScreen />, {
      ...session('analyst'),
      'GET /api/intakes': [intake()],
      'POST /api/intakes/9/undo': { removed: 1200, restored: 0, kept: 4 },
    });
    expect((await screen.findByText(/added/)).textContent!.replace(/\s/g, ' ')).toMatch(
      /^1,200 added, 3 there already, 2 refused\. Ines Varga, /,
    );
    await person.click(screen.getByRole('button', { name: 'Download the balance of march.csv' }));
    expect(mockDownload).toHaveBeenCalledWith('/api/intakes/9/balance.csv');
    await person.click(screen.getByRole('button', { name: 'Undo march.csv' }));
    expect((await screen.findByText(/^Undone:/)).textContent).toMatch(
      /4 left because something else has changed/,
    );
  });

  it('that were undone say so and cannot be undone again; nobody else may', async () => {
    const { unmount } = renderScreen(<FilesScreen />, {
      ...session('analyst'),
      'GET /api/intakes': [intake({ status: 'undone' })],
    });
    expect(await screen.findByText('march.csv (undone)')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Undo march.csv' })).toBeNull();
    unmount();
    renderScreen(<FilesScreen />, { ...session('operator'), 'GET /api/intakes': [intake()] });
    expect(await screen.findByText('march.csv')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Undo march.csv' })).toBeNull();
  });

  it('say how to begin when there are none', async () => {
    renderScreen(<FilesScreen />, { ...session('analyst'), 'GET /api/intakes': [] });
    expect(await screen.findByText(/Choose Intake to import the first/)).toBeTruthy();
  });
});

describe('coverage by day', () => {
  const coverage = {
    day: [0, DAY, 2 * DAY],
    coverage: [1, 0, 0.996],
    samples: [1440, 0, 1434],
    zone: 'UTC',
  } as unknown as CoverageByDay;

  it('is told as a whole, and day by day with the arrow keys', () => {
    renderScreen(<CoverageStrip coverage={coverage} width={300} />);
    const strip = screen.getByRole('slider', { name: 'Coverage by day' });
    expect(strip.getAttribute('aria-valuetext')).toBe('2 of 3 days complete, 1 without any data');
    fireEvent.keyDown(strip, { key: 'ArrowLeft' });
    expect(strip.getAttribute('aria-valuetext')).toMatch(/: 99\.6 % covered, 1,434 samples$/);
    fireEvent.keyDown(strip, { key: 'ArrowLeft' });
    expect(strip.getAttribute('aria-valuetext')).toMatch(/: 0 % covered, 0 samples$/);
    for (let i = 0; i < 5; i++) fireEvent.keyDown(strip, { key: 'ArrowRight' });
    expect(strip.getAttribute('aria-valuetext')).toMatch(/1,434 samples$/);
  });
});

describe('the assets', () => {
  const tree = [
    asset('1', 'Quayside', null, 'plant'),
    asset('2', 'Washer 1', '1'),
    asset('3', 'Washer 2', '1'),
  ];

  it('lead to an asset on a phone, and say which need a look', async () => {
    const { person } = renderScreen(<AssetsScreen />, {
      ...session('viewer'),
      'GET /api/assets': tree,
      'GET /api/metrics': [metric('1'), metric('2', { health: health('silent', { quietMs: HOUR }) })],
    });
    await screen.findByText('Washer 2');
    const lines = screen.getAllByRole('treeitem');
    expect(lines.map((each) => each.getAttribute('aria-level'))).toEqual(['1', '2', '2']);
    expect(within(lines[1]).getByText('machine, 2 metrics')).toBeTruthy();
    // The assets below are counted too.
    expect(screen.getAllByText('1 to check')).toHaveLength(2);
    expect(screen.queryByRole('button', { name: 'Add asset' })).toBeNull();
    await person.click(screen.getByRole('link', { name: /^Washer 2/ }));
    expect(mockPush).toHaveBeenCalledWith('/data/assets/3');
  });

  it('say when a search finds none', async () => {
    const { person } = renderScreen(<AssetsScreen />, {
      ...session('analyst'),
      'GET /api/assets': tree,
      'GET /api/metrics': [],
    });
    await person.type(await screen.findByLabelText('Search assets'), 'dryer');
    expect(await screen.findByText('No asset matches "dryer".')).toBeTruthy();
    expect(screen.queryAllByRole('treeitem')).toEqual([]);
  });
});

describe('jobs', () => {
  const job = (id: string, part: Partial<JobEntry> = {}): JobEntry =>
    ({
      id,
      number: `J-${id}`,
      category: 'Repair',
      customer: 'Ward 4',
      owner: 'Marit Oduya',
      assetId: '8',
      assetName: 'Service desk',
      zone: 'UTC',
      open: true,
      workingMs: 2 * HOUR,
      elapsedMs: 30 * HOUR,
      fields: {},
      history: [
        { at: NOW - 30 * HOUR, status: 'Received', by: 'Ines Varga' },
        { at: NOW - 10 * HOUR, status: 'Waiting for parts', by: 'Marit Oduya' },
      ],
      ...part,
    }) as JobEntry;
  const kinds = [
    { status: 'Received', stopsClock: false, endsJob: false },
    { status: 'Waiting for parts', stopsClock: true, endsJob: false },
    { status: 'Done', stopsClock: false, endsJob: true },
  ];
  const show = (mayEdit: boolean, answers: Answers = {}) =>
    renderScreen(<JobLog mayEdit={mayEdit} mayBuild={mayEdit} />, {
      'GET /api/jobs': [
        job('1', { open: false, workingMs: 9 * HOUR }),
        job('2'),
        job('3', { workingMs: 5 * HOUR }),
      ],
      'GET /api/desks/8/statuses': kinds,
      'POST /api/jobs/3/statuses': undefined,
      ...answers,
    });

  it('stand with the open ones first, the longest in front', async () => {
    show(false);
    expect(await screen.findByText('2 open of 3')).toBeTruthy();
    expect(screen.getAllByText(/^J-\d, Repair$/).map((each) => each.textContent)).toEqual([
      'J-3, Repair',
      'J-2, Repair',
      'J-1, Repair',
    ]);
    expect(screen.getAllByText('so far')).toHaveLength(2);
    expect(screen.getAllByText('in all')).toHaveLength(1);
  });

  it('tell their history with where the clock stood, and get a status from now', async () => {
    const { person, sent } = show(true);
    await person.click(await screen.findByText('J-3, Repair'));
    expect(await screen.findByText('Waiting for parts (the clock is paused)')).toBeTruthy();
    expect(
      screen.getByText(/^5 h in working hours and our own statuses, of .* on the calendar$/),
    ).toBeTruthy();
    const set = screen.getByRole('button', { name: 'Set status from now' });
    expect(set.getAttribute('aria-disabled')).toBe('true');
    await person.click(screen.getByRole('radio', { name: 'Done' }));
    await person.click(set);
    await waitFor(() =>
      expect(sent.find(({ path }) => path === '/api/jobs/3/statuses')?.body).toMatchObject({
        status: 'Done',
      }),
    );
  });

  it('can only be looked at by others', async () => {
    const { person } = show(false);
    await person.click(await screen.findByText('J-2, Repair'));
    expect(screen.queryByRole('button', { name: 'Set status from now' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'What the statuses mean' })).toBeNull();
  });

  it('are those of the window that is chosen', async () => {
    const { person, sent } = show(false, { 'GET /api/jobs': [] });
    expect(await screen.findByText('No job in this window.')).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'a year' }));
    await waitFor(() => expect(sent.at(-1)?.path).toContain('365'));
  });
});
