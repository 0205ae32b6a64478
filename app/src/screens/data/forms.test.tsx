import { screen, waitFor } from '@testing-library/react';
import type { Asset, Metric, StopEntry } from '@vivid-beacon/core';
import { Refused, renderScreen, type SentRequest } from '../../testing/renderScreen';
import { AssetForm } from './AssetForm';
import { JobForm } from './JobForm';
import { MetricForm } from './MetricForm';
import { ReferenceForm } from './ReferenceForm';
import { RemarkForm } from './RemarkForm';
import { StatusKinds } from './StatusKinds';
import { StopForm } from './StopForm';

jest.setTimeout(30_000);

const NOW = Date.UTC(2026, 10, 19, 6, 40);
const MINUTE = 60_000;
const asset = (id: string, parentId: string | null, name: string, kind: string): Asset =>
  ({
    id,
    parentId,
    name,
    kind,
    zone: 'Europe/London',
    ownZone: parentId ? null : 'Europe/London',
    plantId: '1',
    attributes: {},
  }) as Asset;
const ASSETS = [
  asset('1', null, 'Quayside', 'plant'),
  asset('2', '1', 'Ironer hall', 'area'),
  asset('3', '2', 'Ironer 2', 'machine'),
  asset('4', '1', 'Customer desk', 'desk'),
];
const TREE = { 'GET /api/assets': ASSETS };

/** The first change that was sent; the answers it made stale are refetched after it. */
const posted = (sent: readonly SentRequest[]): SentRequest | undefined =>
  sent.find(({ method }) => method === 'POST');
const saved = ({ body }: { body: unknown }): unknown => ({ id: '9', ...(body as object) });

beforeEach(() => {
  jest.spyOn(Date, 'now').mockReturnValue(NOW);
});
afterEach(() => jest.restoreAllMocks());

describe('AssetForm', () => {
  it('adds an asset below another, with numbers and words as attributes', async () => {
    const done = jest.fn();
    const { person, sent } = renderScreen(<AssetForm asset={null} parentId="2" onDone={done} />, {
      ...TREE,
      'POST /api/assets': saved,
    });
    expect(await screen.findByText('Under Quayside / Ironer hall')).toBeTruthy();
    await person.type(screen.getByLabelText('Name of the asset'), 'Ironer 3');
    await person.type(screen.getByLabelText(/^Attributes/), 'Rated speed (m/min): 32{enter}Maker: Harbour');
    await person.click(screen.getByRole('button', { name: 'Add asset' }));
    await waitFor(() => expect(done).toHaveBeenCalledWith('9'));
    expect(posted(sent)).toEqual({
      method: 'POST',
      path: '/api/assets',
      body: {
        name: 'Ironer 3',
        kind: 'machine',
        parentId: '2',
        zone: null,
        attributes: { 'Rated speed (m/min)': 32, Maker: 'Harbour' },
      },
    });
  });

  it('moves one to the top, never offers itself as its parent, and keeps what was typed when refused', async () => {
    const done = jest.fn();
    const { person, sent } = renderScreen(<AssetForm asset={ASSETS[2]} parentId="2" onDone={done} />, {
      ...TREE,
      'PUT /api/assets/3': new Refused(409, {
        code: 'WRONG_STATE',
        message: 'There is an asset named "Ironer 9" there already.',
      }),
    });
    await person.clear(screen.getByLabelText('Name of the asset'));
    await person.type(screen.getByLabelText('Name of the asset'), 'Ironer 9');
    await person.click(screen.getByRole('button', { name: 'Move' }));
    expect(await screen.findByRole('radio', { name: /^Ironer hall/ })).toBeTruthy();
    expect(screen.queryByRole('radio', { name: /^Ironer 2/ })).toBeNull();
    await person.click(screen.getByRole('radio', { name: /^At the top/ }));
    expect(screen.getByText('At the top level, as a plant')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Save asset' }));
    expect(await screen.findByText('There is an asset named "Ironer 9" there already.')).toBeTruthy();
    expect(sent.find(({ method }) => method === 'PUT')!.body).toMatchObject({
      name: 'Ironer 9',
      parentId: null,
    });
    expect((screen.getByLabelText('Name of the asset') as HTMLInputElement).value).toBe('Ironer 9');
    expect(done).not.toHaveBeenCalled();
  });

  it('cannot be saved while an attribute cannot be read, and says which line', async () => {
    const { person, sent } = renderScreen(
      <AssetForm asset={null} parentId={null} onDone={() => undefined} />,
    );
    await person.type(screen.getByLabelText(/^Attributes/), 'Maker');
    expect(screen.getByText('Line 1 must be a name, a colon and a value')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Add asset' }).getAttribute('aria-disabled')).toBe('true');
    expect(sent).toEqual([]);
  });
});

describe('MetricForm', () => {
  const metric = {
    id: '7',
    name: 'Gas meter',
    unit: 'm³',
    ucum: 'm3',
    kind: 'register',
    intervalMs: 15 * MINUTE,
    maxGapMs: 60 * MINUTE,
    rollover: 99_999,
    decimals: 1,
    plausibleLow: 0,
    plausibleHigh: null,
    retentionDays: 400,
  } as Metric;

  it('asks of amounts only what their times stand for, and where one counts that a window cuts', async () => {
    const { person, sent } = renderScreen(<MetricForm metric={null} assetId="3" onDone={() => undefined} />, {
      'POST /api/metrics': saved,
    });
    expect(screen.queryByRole('radiogroup', { name: 'Times stand for' })).toBeNull();
    await person.type(screen.getByLabelText('Name of the metric'), 'Energy');
    await person.click(screen.getByRole('radio', { name: /^Amount/ }));
    await person.click(screen.getByRole('radio', { name: 'the end of their interval' }));
    await person.click(screen.getByRole('radio', { name: 'by the share of its interval' }));
    await person.click(screen.getByRole('button', { name: 'Add metric' }));
    await waitFor(() =>
      expect(sent[0]?.body).toMatchObject({ kind: 'amount', stamped: 'end', cut: 'share' }),
    );
  });

  it('explains each kind, asks for a rollover of registers only, and sends what was chosen', async () => {
    const { person, sent } = renderScreen(<MetricForm metric={null} assetId="3" onDone={() => undefined} />, {
      'POST /api/metrics': saved,
    });
    await person.type(screen.getByLabelText('Name of the metric'), 'Steam meter');
    await person.type(screen.getByLabelText('Unit'), 't');
    expect(screen.queryByLabelText('Starts again at 0 after')).toBeNull();
    await person.click(screen.getByRole('radio', { name: 'Register' }));
    expect(screen.getByText(/^A counter that only grows/)).toBeTruthy();
    await person.type(screen.getByLabelText('Starts again at 0 after'), '9999');
    await person.type(screen.getByLabelText('Lowest plausible value'), '0');
    await person.click(screen.getByRole('button', { name: 'Add metric' }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0].body).toEqual({
      assetId: '3',
      name: 'Steam meter',
      unit: 't',
      kind: 'register',
      intervalMs: MINUTE,
      maxGapMs: 3 * MINUTE,
      stamped: 'start',
      cut: 'start',
      rollover: 9999,
      decimals: 1,
      plausibleLow: 0,
      plausibleHigh: null,
      retentionDays: null,
    });
  });

  it('opens with the settings of a metric, says how its unit was understood, and can take a limit away', async () => {
    const { person, sent } = renderScreen(
      <MetricForm metric={metric} assetId="3" onDone={() => undefined} />,
      {
        'PUT /api/metrics/7': saved,
      },
    );
    expect(screen.getByText('Understood as m3 (UCUM), shown as you wrote it.')).toBeTruthy();
    expect((screen.getByLabelText('Logging interval') as HTMLInputElement).value).toBe('15');
    expect((screen.getByLabelText('Longest allowed gap') as HTMLInputElement).value).toBe('1');
    await person.clear(screen.getByLabelText('Keep samples for'));
    await person.click(screen.getByRole('button', { name: 'Save metric' }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0].body).toMatchObject({ rollover: 99_999, retentionDays: null, maxGapMs: 60 * MINUTE });
  });
});

describe('StopForm', () => {
  const answers = { ...TREE, 'GET /api/stops/reasons': ['Belt torn', 'No linen'], 'POST /api/stops': saved };

  it('is entered with a reason used before, since when it was a word, still open', async () => {
    const done = jest.fn();
    const { person, sent } = renderScreen(<StopForm stop={null} assetId="3" onDone={done} />, answers);
    expect(await screen.findByText('Quayside / Ironer hall / Ironer 2')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Enter stop' }).getAttribute('aria-disabled')).toBe('true');
    await person.click(screen.getByRole('radio', { name: '15 min ago' }));
    await person.click(await screen.findByRole('radio', { name: 'Belt torn' }));
    await person.click(screen.getByRole('button', { name: 'Enter stop' }));
    await waitFor(() => expect(done).toHaveBeenCalled());
    expect(posted(sent)).toEqual({
      method: 'POST',
      path: '/api/stops',
      body: {
        assetId: '3',
        start: NOW - 15 * MINUTE,
        end: null,
        category: '',
        reason: 'Belt torn',
        note: '',
      },
    });
  });

  it('needs the asset first where none was given', async () => {
    const { person, sent } = renderScreen(
      <StopForm stop={null} assetId={null} onDone={() => undefined} />,
      answers,
    );
    await person.type(screen.getByLabelText('Reason of the stop'), 'Steam low');
    expect(screen.getByRole('button', { name: 'Enter stop' }).getAttribute('aria-disabled')).toBe('true');
    await person.click(await screen.findByRole('radio', { name: /^Ironer 2/ }));
    await person.click(screen.getByRole('button', { name: 'Enter stop' }));
    await waitFor(() => expect(posted(sent)).toBeTruthy());
    expect(posted(sent)!.body).toMatchObject({ assetId: '3', reason: 'Steam low' });
  });

  it('ends an open stop now, and takes one out', async () => {
    const stop = {
      id: '5',
      assetId: '3',
      start: NOW - 90 * MINUTE,
      end: null,
      category: 'Mechanical',
      reason: 'Belt torn',
      note: 'Spare on its way',
    } as StopEntry;
    const { person, sent } = renderScreen(<StopForm stop={stop} assetId="3" onDone={() => undefined} />, {
      ...answers,
      'PUT /api/stops/5': saved,
      'DELETE /api/stops/5': undefined,
    });
    await person.click(screen.getByRole('radio', { name: 'running again' }));
    expect((screen.getByLabelText('Until') as HTMLInputElement).value).toBe('2026-11-19T06:40');
    await person.click(screen.getByRole('button', { name: 'Save stop' }));
    await waitFor(() => expect(sent.some(({ method }) => method === 'PUT')).toBe(true));
    expect(sent.find(({ method }) => method === 'PUT')!.body).toMatchObject({
      start: NOW - 90 * MINUTE,
      end: NOW,
      note: 'Spare on its way',
      category: 'Mechanical',
    });
    await person.click(screen.getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(sent.some(({ method }) => method === 'DELETE')).toBe(true));
  });
});

describe('JobForm and StatusKinds', () => {
  const KINDS = [
    { status: 'Received', stopsClock: false, endsJob: false },
    { status: 'Waiting for customer', stopsClock: true, endsJob: false },
  ];

  it('takes the only desk, offers its statuses, and begins the history with one', async () => {
    const { person, sent } = renderScreen(<JobForm onDone={() => undefined} />, {
      ...TREE,
      'GET /api/desks/4/statuses': KINDS,
      'POST /api/jobs': saved,
    });
    await person.click(await screen.findByRole('radio', { name: 'Waiting for customer' }));
    await person.type(screen.getByLabelText('Number of the job'), 'J-204');
    await person.type(screen.getByLabelText('Customer'), 'Weir Hotel');
    await person.click(screen.getByRole('button', { name: 'Enter job' }));
    await waitFor(() => expect(posted(sent)).toBeTruthy());
    expect(posted(sent)!.body).toEqual({
      assetId: '4',
      number: 'J-204',
      category: '',
      customer: 'Weir Hotel',
      owner: '',
      fields: {},
      history: [{ at: NOW, status: 'Waiting for customer' }],
    });
  });

  it('keeps every status when the meaning of one changes, also those only jobs have had', async () => {
    const { person, sent } = renderScreen(
      <StatusKinds assetId="4" name="Customer desk" used={['Closed', 'Received']} />,
      {
        'GET /api/desks/4/statuses': KINDS,
        'PUT /api/desks/4/statuses': ({ body }: { body: { kinds: unknown } }) => body.kinds,
      } as never,
    );
    const group = await screen.findByRole('radiogroup', { name: 'Meaning of Closed' });
    await person.click([...group.querySelectorAll('[role=radio]')].at(-1)!);
    await waitFor(() => expect(sent.some(({ method }) => method === 'PUT')).toBe(true));
    expect(sent.find(({ method }) => method === 'PUT')!.body).toEqual({
      kinds: [...KINDS, { status: 'Closed', stopsClock: false, endsJob: true }],
    });
  });
});

describe('ReferenceForm and RemarkForm', () => {
  it('say what a value by period means before it is added', async () => {
    const done = jest.fn();
    const { person, sent } = renderScreen(<ReferenceForm assetId="1" onDone={done} />, {
      'POST /api/reference-series': saved,
    });
    expect(screen.getByText(/part of a period gets its share/)).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'a level that holds through it' }));
    expect(screen.getByText(/the same at every moment/)).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'financial year' }));
    await person.type(screen.getByLabelText('Name of the series'), 'Headcount');
    await person.click(screen.getByRole('button', { name: 'Add series' }));
    await waitFor(() => expect(done).toHaveBeenCalledWith('9'));
    expect(sent[0].body).toEqual({
      assetId: '1',
      name: 'Headcount',
      unit: '',
      kind: 'level',
      period: 'financialYear',
      decimals: 0,
    });
  });

  it('put a remark on the last hour unless another stretch is chosen', async () => {
    const { person, sent } = renderScreen(
      <RemarkForm assetId="3" zone="Europe/London" now={NOW} onDone={() => undefined} />,
      { 'POST /api/remarks': { id: '1' } },
    );
    const put = screen.getByRole('button', { name: 'Add the remark' });
    expect(put.getAttribute('aria-disabled')).toBe('true');
    await person.click(screen.getByRole('radio', { name: 'a reason' }));
    await person.type(screen.getByLabelText('Remark'), 'Steam off for a repair');
    await person.click(put);
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0].body).toEqual({
      assetId: '3',
      start: NOW - 60 * MINUTE,
      end: NOW,
      kind: 'reason',
      text: 'Steam off for a repair',
    });
  });
});
