import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Asset, StretchNumbers } from '@vivid-beacon/core';
import { DEFAULT_SCALE, encodeTrend, HOUR_MS } from '@vivid-beacon/core';
import { DAY } from '@vivid-beacon/core/src/drawing/palette';
import { Bytes, Refused, type Answers } from '../testing/renderScreen';
import { ASSETS, BAND, SHOWN_METRICS, NOW, showReadout as show, trendReadout } from '../testing/showReadout';

jest.setTimeout(30_000);
jest.mock('../hooks/useWidth', () => ({ useWidth: () => [600, () => undefined] }));
jest.mock('expo-router', () => ({ useRouter: () => ({ push: jest.fn() }) }));

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
      levels: { clear: HOUR_MS / 2, caution: HOUR_MS / 4, breach: HOUR_MS / 4, nodata: 0 },
      levelsBy: 'quarterHour',
    },
  ];
  const answers: Answers = {
    'POST /api/readings/trend': new Bytes(encodeTrend(trendReadout([190, null, 212, 198]))),
    'POST /api/readings/levels': [],
    'GET /api/remarks': [],
    'GET /api/alarms/on-time': [],
    'POST /api/readings/stretch': NUMBERS,
  };

  it('is walked by keys, which tell time, value and level', async () => {
    show({ form: 'trend', compare: 'none' }, answers);
    const plot = await screen.findByRole('group', { name: /Arrow keys walk through its points/ });
    fireEvent.keyDown(plot, { key: 'ArrowRight' });
    expect(screen.getByRole('status').textContent).toBe('Thu 19 Nov, 05:40: 190\u2009°C, Clear');
    // The gap is skipped.
    fireEvent.keyDown(plot, { key: 'ArrowRight' });
    expect(screen.getByRole('status').textContent).toContain('06:00: 212\u2009°C, Breach');
    fireEvent.keyDown(plot, { key: 'Escape' });
    expect(screen.getByRole('status').textContent).toBe(
      'in °C, samples, spikes kept, target 195 at the triangle',
    );
  });

  it('tells the numbers of what is shown, copies them as text, and zooms deeper', async () => {
    const { sent, person, onStretch } = show({ form: 'trend', compare: 'none' }, answers);
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
    await person.click(tray.getByRole('button', { name: "Make it the board's window" }));
    expect(onStretch).toHaveBeenCalledWith(expect.objectContaining({ kind: 'absolute' }));
    fireEvent.keyDown(plot, { key: 'Enter' });
    await person.click(await screen.findByRole('button', { name: 'Zoom in on it' }));
    fireEvent.keyDown(plot, { key: '+' });
    expect(await screen.findByRole('button', { name: 'Back to the whole window' })).toBeTruthy();
    // Half as long, around the middle.
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
    // Alarms and stops along the time axis are requested once the lines are visible.
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
      { form: 'trend', compare: 'none', band: null, scale: { ...DEFAULT_SCALE, broken: true } },
      {
        ...answers,
        'POST /api/readings/trend': new Bytes(
          encodeTrend(trendReadout([10, 11, 12, 11, 980, 990, 1000, 985])),
        ),
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
          encodeTrend({
            ...trendReadout([190, 200]),
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
    // There is no common stretch of time to take numbers from.
    expect(screen.queryByRole('button', { name: /Choose a stretch/ })).toBeNull();
  });

  it('laid over from a start event asks each on the clock of its own site', async () => {
    const far = { ...SHOWN_METRICS[1], zone: 'Asia/Kolkata' };
    const dated = ['a', 'b'].map((id) => ({
      id,
      name: `Machine ${id}`,
      parentId: 'p',
      attributes: { 'Last overhaul': '2026-11-02' },
    }));
    const { sent } = show(
      {
        form: 'trend',
        measures: ['1', '2'].map((metricId) => ({ metricId, summary: 'mean' as const, per: null })),
        align: { attribute: 'Last overhaul', days: 10 },
      },
      { ...answers, 'GET /api/assets': [ASSETS[0], ...dated], 'GET /api/metrics': [SHOWN_METRICS[0], far] },
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

  it('with lines of two units judges each by the band of its own', async () => {
    const speed = { ...SHOWN_METRICS[1], name: 'Feed speed', unit: 'm/min' };
    const lines: Record<string, readonly number[]> = { '1': [190, 212], '2': [27, 20] };
    const { container } = show(
      {
        form: 'trend',
        compare: 'none',
        measures: ['1', '2'].map((metricId) => ({ metricId, summary: 'mean' as const, per: null })),
        secondBand: { direction: 'higher', caution: 26, breach: 24, target: 28 },
      },
      {
        ...answers,
        'GET /api/metrics': [SHOWN_METRICS[0], speed],
        'POST /api/readings/trend': (({ body }: { body: { measure: { metricId: string } } }) => {
          const { metricId } = body.measure;
          const unit = metricId === '1' ? '°C' : 'm/min';
          return new Bytes(encodeTrend({ ...trendReadout([...lines[metricId]]), unit }));
        }) as never,
      },
    );
    const plot = await screen.findByRole('group', { name: /Arrow keys walk through its points/ });
    expect(screen.getByRole('status').textContent).toBe(
      'in °C and m/min, samples, spikes kept, target 195 °C and 28 m/min at the triangle',
    );
    fireEvent.keyDown(plot, { key: 'ArrowRight' });
    fireEvent.keyDown(plot, { key: 'ArrowRight' });
    const told = screen.getByRole('status').textContent!.replace(/\s/g, ' ');
    expect(told).toMatch(/212 °C, Breach; .*20 m\/min, Breach$/);
    // The part in Breach of each of the two lines is drawn in the colour of Breach.
    const breach = [...container.querySelectorAll(`path[clip-path][stroke="${DAY.breach}"]`)];
    expect(breach).toHaveLength(2);
  });

  /** Answers with the unit and the values of each metric. */
  const eachOwn = (lines: Readonly<Record<string, readonly [unit: string, ...values: number[]]>>) =>
    (({ body }: { body: { measure: { metricId: string } } }) => {
      const [unit, ...values] = lines[body.measure.metricId];
      return new Bytes(encodeTrend({ ...trendReadout(values), unit }));
    }) as never;
  const measures = ['1', '2', '3'].map((metricId) => ({ metricId, summary: 'mean' as const, per: null }));

  it('of three units has a small plot for each, and no line without one', async () => {
    show(
      { form: 'trend', compare: 'none', measures },
      {
        ...answers,
        'POST /api/readings/trend': eachOwn({ '1': ['°C', 190, 200], '2': ['bar', 7, 8], '3': ['A', 3, 4] }),
      },
    );
    const plots = await screen.findAllByRole('group', { name: /Arrow keys walk through its points/ });
    expect(plots.map((each) => each.getAttribute('aria-label')!.match(/, in (.*?)\./)![1])).toEqual([
      '°C',
      'bar',
      'A',
    ]);
    expect(screen.getByText(/^in °C, bar and A, samples/)).toBeTruthy();
    expect(screen.queryByText(/^Not drawn/)).toBeNull();
  });

  it('has a line chosen by its name, and focuses the board on it only when that is asked', async () => {
    const two = [
      SHOWN_METRICS[0],
      { ...SHOWN_METRICS[1], assetId: 'a', assetName: 'Ironer 1', name: 'Feed speed' },
    ];
    const { person, onFocus } = show(
      { form: 'trend', compare: 'none', measures: measures.slice(0, 2) },
      {
        ...answers,
        'GET /api/metrics': two,
        'POST /api/readings/trend': eachOwn({ '1': ['°C', 190, 200], '2': ['°C', 27, 28] }),
      },
    );
    const speed = await screen.findByRole('button', { name: 'Choose Feed speed' });
    expect(speed.getAttribute('aria-pressed')).toBe('false');
    await person.click(speed);
    expect(speed.getAttribute('aria-pressed')).toBe('true');
    expect(onFocus).not.toHaveBeenCalled();
    await person.click(screen.getByRole('button', { name: 'Focus the board on Feed speed' }));
    expect(onFocus).toHaveBeenCalledWith('a');
  });

  it('stays where it was, and says so, when a stretch of it cannot be read', async () => {
    let down = false;
    const { person, sent } = show(
      { form: 'trend', compare: 'none' },
      {
        ...answers,
        'POST /api/readings/trend': (() =>
          down
            ? new Refused(503, { code: 'NOT_READY', message: 'The database does not answer.' })
            : answers['POST /api/readings/trend']) as never,
      },
    );
    const plot = await screen.findByRole('group', { name: /Arrow keys walk through its points/ });
    down = true;
    fireEvent.keyDown(plot, { key: '+' });
    expect(await screen.findByText('The new window could not be loaded')).toBeTruthy();
    expect(screen.getByText(/^The database does not answer\. Still showing .*05:40/)).toBeTruthy();
    down = false;
    const before = sent.length;
    await person.click(screen.getByRole('button', { name: 'Try again' }));
    await waitFor(() => expect(screen.queryByText('The new window could not be loaded')).toBeNull());
    expect(sent.slice(before).some(({ path }) => path === '/api/readings/trend')).toBe(true);
  });
});
