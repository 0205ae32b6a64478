import { screen, waitFor, within } from '@testing-library/react';
import { encodeTrend, type Query, type QueryAnswer, type QueryMeasure } from '@vivid-beacon/core';
import { makeBoard } from '../testing/boards';
import { Bytes, Refused } from '../testing/renderScreen';
import { groups, measured, showReadout as show, trendReadout, withAttributes } from '../testing/showReadout';
import { changeWords } from '@vivid-beacon/core/src/boards';

jest.setTimeout(30_000);
jest.mock('../hooks/useWidth', () => ({ useWidth: () => [600, () => undefined] }));
const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  useRouter: () => ({ push: mockPush }),
  Link: ({ href, children }: { href: string; children: unknown }) => <a href={href}>{children as never}</a>,
}));

/** The only metric of a measure. */
function idOf({ select }: QueryMeasure): string {
  return 'metricIds' in select ? select.metricIds[0] : '';
}

const IRONERS = makeBoard({ title: 'Ironers' });

describe('a gauge', () => {
  it('tells value, state and distance, and opens how it was made', async () => {
    const { person } = show({}, { 'POST /api/readings/query': measured(212) });
    const button = await screen.findByRole('button', { name: /212.*Breach, 7 over limit\. How it was made/ });
    expect(screen.getByRole('heading', { name: 'Ironer 1 bed temperature' })).toBeTruthy();
    await person.click(button);
    expect(await screen.findByText('mean of Bed temperature (Ironer 1)')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Open its samples' }));
    expect(mockPush).toHaveBeenCalledWith('/data/metrics/1');
  });

  it('of several metrics marks each on one scale and lists them', async () => {
    const values: Record<string, number> = { '1': 190, '2': 203 };
    show({ measures: ['1', '2'].map((metricId) => ({ metricId, summary: 'mean' as const, per: null })) }, {
      'POST /api/readings/query': ({ body }: { body: Query }) =>
        measured(...body.measures.map((each) => values[idOf(each)])),
    } as never);
    expect(await screen.findByText(/Beam\s+Ironer 1 190/)).toBeTruthy();
    expect(screen.getByText(/B\s+Ironer 2 203/)).toBeTruthy();
    expect(screen.getByRole('heading', { name: 'Bed temperature, Ironer 1 and Ironer 2' })).toBeTruthy();
  });

  it('opens how it was made by a tap, and from there the place it leads to, by its title', async () => {
    const { person } = show(
      { link: '/boards/3' },
      { 'POST /api/readings/query': measured(198), 'GET /api/boards/3': IRONERS },
    );
    await person.click(await screen.findByRole('button', { name: /198.*How it was made$/ }));
    expect(await screen.findByText('mean of Bed temperature (Ironer 1)')).toBeTruthy();
    await person.click(await screen.findByRole('button', { name: 'Open Ironers' }));
    expect(mockPush).toHaveBeenLastCalledWith('/boards/3');
  });

  it('of too little data shows its value faint, with its coverage and without a level', async () => {
    const thin = withAttributes(measured(198), { coverage: [0.4] });
    show({}, { 'POST /api/readings/query': thin });
    expect(
      await screen.findByRole('button', { name: /198.*not judged, coverage only 40 %\. How/ }),
    ).toBeTruthy();
    expect(screen.queryByText(/No data/)).toBeNull();
  });

  it('without a band is announced without a level', async () => {
    show({ band: null }, { 'POST /api/readings/query': measured(198) });
    const gauge = await screen.findByRole('button', { name: /198.*How it was made$/ });
    expect(gauge.getAttribute('aria-label')).not.toContain('Clear');
  });

  it('says why it could not be read, and reads again when asked', async () => {
    let tries = 0;
    const { person } = show(
      {},
      {
        'POST /api/readings/query': () =>
          ++tries === 1
            ? new Refused(404, { code: 'NOT_FOUND', message: 'Metric 1 does not exist any more.' })
            : measured(198),
      },
    );
    expect(await screen.findByText('Metric 1 does not exist any more.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await screen.findByRole('button', { name: /198.*Clear, 3 over target/ })).toBeTruthy();
  });

  it('follows the focus to the metric of the same name, and says so', async () => {
    const { sent } = show({ title: 'Ironer 1' }, { 'POST /api/readings/query': measured(201) }, 'b');
    expect(await screen.findByText('follows the focus')).toBeTruthy();
    expect(screen.getByRole('heading', { name: 'Ironer 2 bed temperature' })).toBeTruthy();
    await waitFor(() => expect(sent.some(({ path }) => path === '/api/readings/query')).toBe(true));
    const asked = sent.filter(({ path }) => path === '/api/readings/query').at(-1)!.body as Query;
    expect(asked.measures.map(idOf)).toEqual(['2']);
  });
});

/** The provenance of one group. */
function explained(value: number): QueryAnswer {
  const part = {
    metricId: '1',
    metricName: 'Bed temperature',
    assetName: 'Ironer 1',
    summary: 'mean',
    unit: '°C',
    samples: 60,
    coverage: 1,
    value,
    basis: 'samples' as const,
    sources: [],
  };
  const [{ provenance }] = measured(value).groups[0].measures;
  const formula = 'time-weighted mean of Bed temperature (Ironer 1)';
  return withAttributes(groups(value), { provenance: { ...provenance!, formula, parts: [part] } });
}

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
    const { person, onFocus, sent } = show(
      { ...grouped, form: 'straight' },
      {
        'POST /api/readings/query': ({ body }: { body: unknown }) =>
          (body as Query).provenance ? explained(190) : groups(190, 203, 210),
      },
    );
    await person.click(await screen.findByRole('button', { name: 'Ironer 2, Caution. Focus on it' }));
    expect(onFocus).toHaveBeenCalledWith('b');
    await person.click(screen.getByRole('button', { name: /190 °C, Ironer 1\. How it was made/ }));
    const tray = within(screen.getByRole('dialog'));
    expect(tray.getByText('1 of the same name lies below it and is not counted again.')).toBeTruthy();
    // The provenance is requested when it is opened, for the metrics of this group only.
    expect(await tray.findByText('time-weighted mean of Bed temperature (Ironer 1)')).toBeTruthy();
    expect(tray.getByText(/^60 used, coverage/)).toBeTruthy();
    const asked = sent.filter(({ path }) => path === '/api/readings/query').map(({ body }) => body as Query);
    expect(asked.map(({ provenance = false }) => provenance)).toEqual([false, true]);
    expect(asked[1]).toMatchObject({
      measures: [{ select: { metricIds: ['1'] } }],
      groupBy: { kind: 'all' },
    });
  });

  it('are compared with the window before, as single values are', async () => {
    const compared = withAttributes(groups(190, 203), { previous: 200 });
    const { sent } = show(
      { ...grouped, form: 'figure', band: null, decimals: 0 },
      { 'POST /api/readings/query': compared },
    );
    expect((await screen.findByText(/^down 10/)).textContent!.replace(/\s/g, ' ')).toBe(
      'down 10 (5.0 %) on 200 °C before',
    );
    expect(sent.find(({ path }) => path === '/api/readings/query')!.body).toMatchObject({
      compare: 'before',
    });
  });

  it('of a window that is not over are marked as unfinished', async () => {
    const answer = withAttributes(groups(190), { partial: true });
    show({ ...grouped, form: 'gauge' }, { 'POST /api/readings/query': answer });
    expect(await screen.findByText('unfinished period')).toBeTruthy();
  });

  it('without a target band stand in thirds of their list, told as relative', async () => {
    const { person, onBand } = show(
      { ...grouped, form: 'lamp', band: null },
      { 'POST /api/readings/query': groups(0, 50, 100) },
    );
    expect(await screen.findByText('lowest third')).toBeTruthy();
    expect(screen.getByText('highest third')).toBeTruthy();
    expect(screen.getByText(/Relative: no target band is set/)).toBeTruthy();
    // Nothing is called Clear without a band.
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
      measures: [{ select: { metricName: 'Bed temperature' } }],
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
    // From zero, or across zero, there is no percentage.
    [{ value: 5, previous: 0 }, 'up 5.0 on 0.0 kg before'],
    [{ value: -9, previous: -10 }, 'up 1.0 (10.0 %) on \u221210.0 kg before'],
    [{ value: 5, previous: -10 }, 'up 15.0 on \u221210.0 kg before'],
    [{ value: null, previous: 4 }, 'nothing to compare with'],
    [{ value: 4, previous: null }, 'nothing to compare with'],
  ])('%j is %s', (part, words) => {
    expect(changeWords({ ...part, unit: 'kg', partial: false }, 1).replace(/\u2009/g, ' ')).toBe(words);
  });

  it('of an unfinished window is compared with as much of the one before', () => {
    const words = changeWords({ value: 5, previous: 4, unit: '', partial: true }, 0);
    expect(words).toBe('up 1 (25.0 %) on 4 by this time before');
  });

  it('of an indicator is set against the reference of that, not against an earlier window', async () => {
    show(
      { form: 'figure', compare: 'none', reference: { kind: 'baseline', value: 180 } },
      {
        'POST /api/readings/query': withAttributes(measured(189), { previous: 100, partial: true }),
        'POST /api/readings/trend': new Bytes(encodeTrend(trendReadout([1, 2]))),
      },
    );
    expect((await screen.findByText(/as usual$/)).textContent!.replace(/\s/g, ' ')).toBe(
      'up 9 (5.0 %) on 180 °C as usual',
    );
  });

  it('shows its target and when it was true', async () => {
    show(
      { form: 'figure' },
      {
        'POST /api/readings/query': measured(198),
        'POST /api/readings/trend': new Bytes(encodeTrend(trendReadout([1, 2]))),
      },
    );
    expect(await screen.findByText(/^target 195/)).toBeTruthy();
    expect(screen.getByText(/^as of Thu 19 Nov, 06:39/)).toBeTruthy();
  });
});

describe('a ring', () => {
  const sums = { form: 'ring' as const, measures: [{ metricId: '1', summary: 'sum' as const, per: null }] };
  const grouped = { ...sums, groupBy: { kind: 'asset' as const }, band: null };

  it('opens how its whole was made, and from there each part of it', async () => {
    const { person } = show(grouped, { 'POST /api/readings/query': groups(60, 30, null) });
    await person.click(await screen.findByRole('button', { name: /^90(\.0)?, the whole, in °C/ }));
    const tray = within(screen.getByRole('dialog'));
    expect(tray.getByText('The sum of 2 parts')).toBeTruthy();
    // A missing value is not counted as zero.
    expect(tray.getByText('Without data, so not in it: Ironer 3')).toBeTruthy();
    expect(tray.getByText('66.7 % of the whole')).toBeTruthy();
    await person.click(tray.getByRole('button', { name: /^60.* °C, Ironer 1\. How it was made/ }));
    expect(screen.getByRole('dialog', { name: /Ironer 1/ })).toBeTruthy();
  });

  it('of kilograms and hours has no whole', async () => {
    const units: Record<string, string> = { '1': 'kg', '2': 'h' };
    const both = ['1', '2'].map((metricId) => ({ metricId, summary: 'sum' as const, per: null }));
    show({ ...sums, measures: both, band: null }, {
      'POST /api/readings/query': ({ body }: { body: Query }) => ({
        ...measured(5, 5),
        units: body.measures.map((each) => units[idOf(each)]),
      }),
    } as never);
    expect(await screen.findByText('Shares need amounts of one unit; these are in kg and h.')).toBeTruthy();
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
