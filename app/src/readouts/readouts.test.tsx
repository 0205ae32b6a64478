import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type {
  Asset,
  Metric,
  QueryAnswer,
  Reading,
  Readout,
  StretchNumbers,
  TrendAnswer,
} from '@vivid-beacon/core';
import { emptyReadout, PLAIN_SCALE, writeTrend } from '@vivid-beacon/core';
import { BoardLookProvider } from '../boards/BoardLookContext';
import { Bytes, Refused, renderScreen, type Answers } from '../testing/renderScreen';
import { ReadoutView } from './ReadoutView';
import { changeWords } from './FigureReadout';

jest.setTimeout(30_000);
jest.mock('../hooks/useWidth', () => ({ useWidth: () => [600, () => undefined] }));
// Tests run as CommonJS, which has no import().
jest.mock('./LazyMarkdown', () => ({
  LazyMarkdown: jest.requireActual('../components/Markdown').Markdown,
}));
const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  useRouter: () => ({ push: mockPush }),
  Link: ({ href, children }: { href: string; children: unknown }) => <a href={href}>{children as never}</a>,
}));

const NOW = Date.UTC(2026, 10, 19, 6, 40);
const HOUR = 3_600_000;
const metric = (id: string, name: string, assetId: string, assetName: string): Metric =>
  ({
    id,
    name,
    assetId,
    assetName,
    plantId: 'p',
    plantName: 'Quayside',
    zone: 'Europe/London',
    unit: '°C',
    kind: 'level',
    origin: 'samples',
    decimals: 0,
  }) as Metric;
const METRICS = [
  metric('1', 'Bed temperature', 'a', 'Ironer 1'),
  metric('2', 'Bed temperature', 'b', 'Ironer 2'),
  metric('3', 'Bed temperature', 'c', 'Ironer 3'),
];
const ASSETS = [
  { id: 'p', parentId: null, name: 'Quayside', attributes: {} },
  { id: 'a', parentId: 'p', name: 'Ironer 1', attributes: {} },
] as unknown as Asset[];
const BAND = { direction: 'lower' as const, caution: 200, breach: 205, target: 195 };
const reading = (value: number | null, part: Partial<Reading> = {}): Reading => ({
  value,
  unit: '°C',
  level: value === null ? 'nodata' : value > 205 ? 'breach' : value > 200 ? 'caution' : 'clear',
  coverage: 1,
  partial: false,
  previous: 190,
  asOf: NOW - 60_000,
  now: NOW,
  provenance: {
    formula: 'mean of Bed temperature (Ironer 1)',
    window: { start: NOW - HOUR, end: NOW },
    zone: 'Europe/London',
    minimumCoverage: 0.75,
    parts: [],
  },
  ...part,
});
const groups = (...values: (number | null)[]): QueryAnswer => ({
  window: { start: NOW - HOUR, end: NOW },
  zone: 'Europe/London',
  now: NOW,
  unit: '°C',
  start: [NOW - HOUR],
  end: [NOW],
  names: null,
  groups: values.map((value, i) => ({
    name: `Quayside / Ironer ${i + 1}`,
    metricIds: [String(i + 1)],
    withinIds: i === 0 ? ['7'] : [],
    values: [value],
    coverage: [value === null ? 0 : 1],
    samples: [60],
  })),
});
const readout = (part: Partial<Readout> = {}): Readout => ({
  ...emptyReadout('r', 'gauge'),
  measures: [{ metricId: '1', summary: 'mean', per: null }],
  band: BAND,
  ...part,
});
const BASE: Answers = { 'GET /api/metrics': METRICS, 'GET /api/assets': ASSETS };

function show(part: Partial<Readout>, answers: Answers, focus: string | null = null) {
  const onFocus = jest.fn();
  const onBand = jest.fn();
  const look = {
    window: { kind: 'rolling' as const, count: 1, unit: 'hour' as const },
    scope: { assetIds: null, attributes: [] },
    hours: null,
    focus,
    onFocus,
    onBand,
  };
  const view = renderScreen(
    <BoardLookProvider look={look}>
      <ReadoutView readout={readout(part)} />
    </BoardLookProvider>,
    { ...BASE, ...answers },
  );
  return { ...view, onFocus, onBand };
}

describe('a gauge', () => {
  it('tells value, state and distance, and opens how it was made', async () => {
    const { person } = show({}, { 'POST /api/readings/value': reading(212) });
    const button = await screen.findByRole('button', { name: /212.*Breach, 7 over limit\. How it was made/ });
    expect(screen.getByRole('heading', { name: 'Ironer 1 bed temperature' })).toBeTruthy();
    await person.click(button);
    expect(screen.getByText('mean of Bed temperature (Ironer 1)')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Open its samples' }));
    expect(mockPush).toHaveBeenCalledWith('/data/metrics/1');
  });

  it('of several metrics marks each on one scale and lists them', async () => {
    const values: Record<string, number> = { '1': 190, '2': 203 };
    show({ measures: ['1', '2'].map((metricId) => ({ metricId, summary: 'mean' as const, per: null })) }, {
      'POST /api/readings/value': ({ body }: { body: { measure: { metricId: string } } }) =>
        reading(values[body.measure.metricId]),
    } as never);
    expect(await screen.findByText(/Beam\s+Ironer 1 190/)).toBeTruthy();
    expect(screen.getByText(/B\s+Ironer 2 203/)).toBeTruthy();
    expect(screen.getByRole('heading', { name: 'Bed temperature, Ironer 1 and Ironer 2' })).toBeTruthy();
  });

  it('with a place of its own opens it by a tap; how it was made has a button', async () => {
    const { person } = show({ link: '/boards/3' }, { 'POST /api/readings/value': reading(198) });
    await person.click(await screen.findByRole('button', { name: /198.*Open \/boards\/3$/ }));
    expect(mockPush).toHaveBeenLastCalledWith('/boards/3');
    await person.click(screen.getByRole('button', { name: 'How it was made' }));
    expect(screen.getByText('mean of Bed temperature (Ironer 1)')).toBeTruthy();
  });

  it('says why it could not be read, and reads again when asked', async () => {
    let tries = 0;
    const { person } = show(
      {},
      {
        'POST /api/readings/value': () =>
          ++tries === 1
            ? new Refused(404, { code: 'NOT_FOUND', message: 'Metric 1 does not exist any more.' })
            : reading(198),
      },
    );
    expect(await screen.findByText('Metric 1 does not exist any more.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Read again' }));
    expect(await screen.findByRole('button', { name: /198.*Clear, 3 over target/ })).toBeTruthy();
  });

  it('follows the focus to the metric of the same name, and says so', async () => {
    const { sent } = show({ title: 'Ironer 1' }, { 'POST /api/readings/value': reading(201) }, 'b');
    expect(await screen.findByText('follows the focus')).toBeTruthy();
    expect(screen.getByRole('heading', { name: 'Ironer 2 bed temperature' })).toBeTruthy();
    await waitFor(() => expect(sent.some(({ path }) => path === '/api/readings/value')).toBe(true));
    const asked = sent.filter(({ path }) => path === '/api/readings/value').at(-1)!.body as {
      measure: { metricId: string };
    };
    expect(asked.measure.metricId).toBe('2');
  });
});

describe('groups', () => {
  const grouped = { groupBy: { kind: 'asset' as const } };

  it.each(['gauge', 'straight', 'tank', 'lamp', 'figure', 'ring'] as const)(
    'as %s show every group by name',
    async (form) => {
      const measures = [
        { metricId: '1', summary: form === 'ring' ? ('sum' as const) : ('mean' as const), per: null },
      ];
      show({ ...grouped, form, measures }, { 'POST /api/readings/query': groups(190, 203, 210) });
      for (const name of ['Ironer 1', 'Ironer 2', 'Ironer 3'])
        expect((await screen.findAllByText(name)).length).toBeGreaterThan(0);
    },
  );

  it('focus their asset by name, and open what lies behind by number', async () => {
    const { person, onFocus } = show(
      { ...grouped, form: 'straight' },
      { 'POST /api/readings/query': groups(190, 203, 210) },
    );
    await person.click(await screen.findByRole('button', { name: 'Ironer 2, Caution. Focus on it' }));
    expect(onFocus).toHaveBeenCalledWith('b');
    await person.click(screen.getByRole('button', { name: /190 °C, Ironer 1\. How it was made/ }));
    const tray = within(screen.getByRole('dialog'));
    expect(tray.getByText('1 of the same name lies below it and is not counted again.')).toBeTruthy();
    expect(tray.getByText('60 used')).toBeTruthy();
  });

  it('without a target band stand in thirds of their list, told as relative', async () => {
    const { person, onBand } = show(
      { ...grouped, form: 'lamp', band: null },
      { 'POST /api/readings/query': groups(0, 50, 100) },
    );
    expect(await screen.findByText('lowest third')).toBeTruthy();
    expect(screen.getByText('highest third')).toBeTruthy();
    expect(screen.getByText(/Relative: no target band is set/)).toBeTruthy();
    // Nothing is told to be well that nobody set a band for.
    expect(screen.queryByText(/Clear/)).toBeNull();
    expect(screen.queryByRole('button', { name: /Clear/ })).toBeNull();
    await person.click(screen.getByRole('button', { name: 'Make it a target band' }));
    expect(onBand).toHaveBeenCalledWith('r', {
      direction: 'lower',
      caution: 33,
      breach: 67,
      target: null,
    });
  });

  it.each([
    ['when one is below zero', 'sum' as const, [5, -1]],
    ['of what does not add up', 'mean' as const, [5, 1]],
  ])('as a ring have no shares %s', async (_, summary, values) => {
    const measures = [{ metricId: '1', summary, per: null }];
    show({ ...grouped, form: 'ring', measures }, { 'POST /api/readings/query': groups(...values) });
    expect(await screen.findByText('No whole to have shares of')).toBeTruthy();
  });

  it('state their subset in a footnote until one is written', async () => {
    const subset = {
      ...grouped,
      form: 'figure' as const,
      hours: { kind: 'weekdays' as const, days: [6, 7] },
    };
    const { unmount } = show(subset, { 'POST /api/readings/query': groups(1, 2) });
    expect(await screen.findByText('Only on Saturdays, Sundays')).toBeTruthy();
    unmount();
    show(
      { ...subset, footnote: 'Weekends, see the shift plan' },
      { 'POST /api/readings/query': groups(1, 2) },
    );
    expect(await screen.findByText('Weekends, see the shift plan')).toBeTruthy();
    expect(screen.queryByText('Only on Saturdays, Sundays')).toBeNull();
  });

  it('ask once for the scope, hours and groups of all', async () => {
    const { sent } = show({ ...grouped, form: 'figure' }, { 'POST /api/readings/query': groups(1) });
    await screen.findByText('1');
    const [asked] = sent.filter(({ path }) => path === '/api/readings/query');
    expect(asked.body).toMatchObject({
      select: { metricName: 'Bed temperature' },
      groupBy: { kind: 'asset' },
      scope: { assetIds: null, attributes: [] },
      bucket: null,
    });
  });
});

describe('a figure', () => {
  it.each([
    [{ value: 103, previous: 100 }, 'up 3.0 (3.0 %) on 100.0 kg before'],
    [{ value: 90, previous: 100 }, 'down 10.0 (10.0 %) on 100.0 kg before'],
    [{ value: 100, previous: 100 }, 'the same as 100.0 kg before'],
    // Of nothing, or from below nothing to above it, no percentage can be told.
    [{ value: 5, previous: 0 }, 'up 5.0 on 0.0 kg before'],
    [{ value: -9, previous: -10 }, 'up 1.0 (10.0 %) on \u221210.0 kg before'],
    [{ value: 5, previous: -10 }, 'up 15.0 on \u221210.0 kg before'],
    [{ value: null, previous: 4 }, 'nothing to compare with'],
    [{ value: 4, previous: null }, 'nothing to compare with'],
  ])('%j is %s', (part, words) => {
    expect(changeWords({ ...part, unit: 'kg', reading: null }, 1).replace(/\u2009/g, ' ')).toBe(words);
  });

  it('of an unfinished window is compared with as much of the one before', () => {
    const words = changeWords({ value: 5, previous: 4, unit: '', reading: reading(5, { partial: true }) }, 0);
    expect(words).toBe('up 1 (25.0 %) on 4 by this time before');
  });

  it('of an indicator is set against the reference of that, not against an earlier window', async () => {
    show(
      { form: 'figure', compare: 'none', reference: { kind: 'baseline', value: 180 } },
      { 'POST /api/readings/value': reading(189, { previous: 100, partial: true }) },
    );
    expect((await screen.findByText(/as usual$/)).textContent!.replace(/\s/g, ' ')).toBe(
      'up 9 (5.0 %) on 180 °C as usual',
    );
  });

  it('shows its target and when it was true', async () => {
    show(
      { form: 'figure' },
      {
        'POST /api/readings/value': reading(198),
        'POST /api/readings/trend': new Bytes(writeTrend(trend([1, 2]))),
      },
    );
    expect(await screen.findByText(/^target 195/)).toBeTruthy();
    expect(screen.getByText(/^as of Thu 19 Nov, 06:39/)).toBeTruthy();
  });
});

function trend(v: (number | null)[]): TrendAnswer {
  return {
    window: { start: NOW - HOUR, end: NOW },
    zone: 'Europe/London',
    unit: '°C',
    now: NOW,
    t: v.map((_, i) => NOW - HOUR + i * 600_000),
    v,
    until: null,
    gaps: [],
    samples: v.length,
  };
}

describe('a trend', () => {
  const NUMBERS: StretchNumbers[] = [
    {
      value: 199.5,
      unit: '°C',
      coverage: 1,
      samples: 60,
      values: [
        { summary: 'mean', value: 199.5, unit: '°C' },
        { summary: 'max', value: 212, unit: '°C' },
      ],
      levels: { clear: HOUR / 2, caution: HOUR / 4, breach: HOUR / 4, nodata: 0 },
    },
  ];
  const answers: Answers = {
    'POST /api/readings/trend': new Bytes(writeTrend(trend([190, null, 212, 198]))),
    'POST /api/readings/levels': [],
    'GET /api/remarks': [],
    'GET /api/alarms': { standing: [], past: [] },
    'POST /api/readings/stretch': NUMBERS,
  };

  it('is walked by keys, which tell time, value and level', async () => {
    show({ form: 'trend', compare: 'none' }, answers);
    const plot = await screen.findByRole('group', { name: /Arrow keys walk through its points/ });
    fireEvent.keyDown(plot, { key: 'ArrowRight' });
    expect(screen.getByRole('status').textContent).toBe('Thu 19 Nov, 05:40: 190\u2009°C, Clear');
    // The gap is stepped over.
    fireEvent.keyDown(plot, { key: 'ArrowRight' });
    expect(screen.getByRole('status').textContent).toContain('06:00: 212\u2009°C, Breach');
    fireEvent.keyDown(plot, { key: 'Escape' });
    expect(screen.getByRole('status').textContent).toBe('in °C, samples, spikes kept');
  });

  it('tells the numbers of what is shown, copies them as text, and zooms deeper', async () => {
    const { sent, person } = show({ form: 'trend', compare: 'none' }, answers);
    const written: string[] = [];
    Object.defineProperty(navigator, 'clipboard', {
      configurable: true,
      value: { writeText: async (text: string) => void written.push(text) },
    });
    const plot = await screen.findByRole('group', { name: /Arrow keys walk through its points/ });
    fireEvent.keyDown(plot, { key: 'Enter' });
    const tray = within(screen.getByRole('dialog'));
    expect(await tray.findByText('212.00 °C')).toBeTruthy();
    await person.click(tray.getByRole('button', { name: 'Copy as text' }));
    await waitFor(() => expect(written).toHaveLength(1));
    expect(written[0]).toContain('Highest\t212.00 °C');
    expect(written[0].replace(/\u2009/g, ' ')).toContain('Breach\t15 min');
    await person.click(tray.getByRole('button', { name: 'Zoom in on it' }));
    fireEvent.keyDown(plot, { key: '+' });
    expect(await screen.findByRole('button', { name: 'Back to the whole window' })).toBeTruthy();
    // Half as much, around the middle.
    await waitFor(() =>
      expect(sent.filter(({ path }) => path === '/api/readings/trend').at(-1)!.body).toMatchObject({
        window: { kind: 'absolute', start: '2026-11-19T05:55:00', end: '2026-11-19T06:25:00' },
      }),
    );
  });

  it('shown in thousands asks with its band as it was set, and tells numbers in the unit itself', async () => {
    const { sent } = show({ form: 'trend', compare: 'none', display: 'thousands' }, answers);
    const plot = await screen.findByRole('group', { name: /Arrow keys walk through its points/ });
    fireEvent.keyDown(plot, { key: 'Enter' });
    await within(screen.getByRole('dialog')).findByText('212.00 °C');
    // What lies along the time is asked for once the lines are seen.
    await waitFor(() => expect(sent.some(({ path }) => path === '/api/readings/levels')).toBe(true));
    const bands = ['levels', 'stretch'].map((what) => {
      const body = sent.find(({ path }) => path === `/api/readings/${what}`)!.body as {
        band?: unknown;
        measures?: { band: unknown }[];
      };
      return body.band ?? body.measures?.[0].band;
    });
    expect(bands).toEqual([BAND, BAND]);
  });

  it('on a broken scale says which values it leaves out', async () => {
    show(
      { form: 'trend', compare: 'none', band: null, scale: { ...PLAIN_SCALE, broken: true } },
      {
        ...answers,
        'POST /api/readings/trend': new Bytes(writeTrend(trend([10, 11, 12, 11, 980, 990, 1000, 985]))),
      },
    );
    expect(await screen.findByText(/^The scale leaves out \d+ to \d+\.$/)).toBeTruthy();
  });

  it('in percent of the first value has neither band nor ends of the unit', async () => {
    show({ form: 'trend', compare: 'none', normalise: { by: 'first' } }, answers);
    expect(await screen.findByText(/^in % of the first, samples/)).toBeTruthy();
    const plot = screen.getByRole('group', { name: /Arrow keys walk through its points/ });
    fireEvent.keyDown(plot, { key: 'ArrowRight' });
    expect(screen.getByRole('status').textContent).toBe('Thu 19 Nov, 05:40: 100\u2009% of the first');
  });

  it('laid over from a start event asks each from its own date on, and names those without one', async () => {
    const dated = [
      ASSETS[0],
      { ...ASSETS[1], attributes: { 'Last overhaul': '2026-11-02' } },
      { id: 'b', parentId: 'p', name: 'Ironer 2', attributes: {} },
    ] as Asset[];
    const { sent } = show(
      {
        form: 'trend',
        measures: ['1', '2'].map((metricId) => ({ metricId, summary: 'mean' as const, per: null })),
        align: { attribute: 'Last overhaul', days: 10 },
      },
      {
        ...answers,
        'GET /api/assets': dated,
        'POST /api/readings/trend': new Bytes(
          writeTrend({
            ...trend([190, 200]),
            window: { start: Date.UTC(2026, 10, 2), end: Date.UTC(2026, 10, 12) },
            t: [Date.UTC(2026, 10, 3), Date.UTC(2026, 10, 4, 6)],
          }),
        ),
      },
    );
    expect(await screen.findByText('Not drawn: Ironer 2 (no date in Last overhaul)')).toBeTruthy();
    const asked = sent.filter(({ path }) => path === '/api/readings/trend').map(({ body }) => body);
    expect(asked).toMatchObject([
      { window: { start: '2026-11-02T00:00:00', end: '2026-11-12T00:00:00' }, measure: { metricId: '1' } },
    ]);
    const plot = screen.getByRole('group', { name: /Arrow keys walk through its points/ });
    fireEvent.keyDown(plot, { key: 'ArrowRight' });
    expect(screen.getByRole('status').textContent).toMatch(/^day 1: 190/);
    fireEvent.keyDown(plot, { key: 'ArrowRight' });
    expect(screen.getByRole('status').textContent).toMatch(/^day 2, 06:00: 200/);
    // There is no common stretch of time to take numbers of.
    expect(screen.queryByRole('button', { name: /Choose a stretch/ })).toBeNull();
  });

  it('laid over from a start event asks each on the clock of its own site', async () => {
    const far = { ...METRICS[1], zone: 'Asia/Kolkata' };
    const dated = ['a', 'b'].map((id) => ({
      id,
      parentId: 'p',
      attributes: { 'Last overhaul': '2026-11-02' },
    }));
    const { sent } = show(
      {
        form: 'trend',
        measures: ['1', '2'].map((metricId) => ({ metricId, summary: 'mean' as const, per: null })),
        align: { attribute: 'Last overhaul', days: 10 },
      },
      { ...answers, 'GET /api/assets': [ASSETS[0], ...dated], 'GET /api/metrics': [METRICS[0], far] },
    );
    await screen.findByRole('group', { name: /Arrow keys walk through its points/ });
    const asked = sent.filter(({ path }) => path === '/api/readings/trend').map(({ body }) => body);
    const window = { kind: 'absolute', start: '2026-11-02T00:00:00', end: '2026-11-12T00:00:00' };
    expect(asked).toMatchObject([{ window }, { window }]);
  });

  it('moves along by a quarter with Shift and the arrows', async () => {
    const { sent } = show({ form: 'trend', compare: 'none' }, answers);
    const plot = await screen.findByRole('group', { name: /Arrow keys walk through its points/ });
    fireEvent.keyDown(plot, { key: 'ArrowLeft', shiftKey: true });
    await waitFor(() =>
      expect(sent.filter(({ path }) => path === '/api/readings/trend').at(-1)!.body).toMatchObject({
        window: { kind: 'absolute', start: '2026-11-19T05:25:00', end: '2026-11-19T06:25:00' },
      }),
    );
  });

  it('compares with the window before as a dashed line that is named', async () => {
    jest.spyOn(Date, 'now').mockReturnValue(NOW);
    show({ form: 'trend', compare: 'before' }, answers);
    expect(await screen.findByText(/dashed: the window before/)).toBeTruthy();
    jest.restoreAllMocks();
  });
});

describe('a note', () => {
  it('stands without a title unless it is given one', async () => {
    const note = { form: 'note' as const, measures: [], band: null, text: '# Shift\n\nAll *well*.' };
    const { unmount } = show(note, {});
    expect(await screen.findByText('Shift')).toBeTruthy();
    expect(screen.queryByRole('heading', { level: 2 })).toBeNull();
    unmount();
    show({ ...note, title: 'For the night' }, {});
    expect(await screen.findByRole('heading', { name: 'For the night' })).toBeTruthy();
  });
});
