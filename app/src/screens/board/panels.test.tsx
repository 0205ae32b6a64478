import { useState } from 'react';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import {
  DEFAULT_ROUND_SCALE,
  DEFAULT_TREND_SCALE,
  WHOLE_SCOPE,
  type Asset,
  type BoardDocument,
  type HoursFilter,
  type Metric,
  type Readout,
  type ReadoutForm,
  type ReadoutParts,
  type Scope,
} from '@vivid-beacon/core';
import { emptyReadout, makeReadout, writeBoardFile } from '@vivid-beacon/core/src/boards';
import { HoursPanel } from '../../components/scope/HoursPanel';
import { ScopePanel } from '../../components/scope/ScopePanel';
import { listedBoard, makeBoard } from '../../testing/boards';
import { renderScreen } from '../../testing/renderScreen';
import { GroupPanel } from '../editor/GroupPanel';
import { AppearancePanel } from '../editor/AppearancePanel';
import { MorePanel } from '../editor/MorePanel';
import { BoardFileIn } from './BoardFileIn';
import { NewBoard } from './NewBoard';
import { ReadoutTools, type ReadoutActions } from './ReadoutTools';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: mockPush }) }));

const asset = (id: string, parentId: string | null, name: string, attributes = {}): Asset =>
  ({ id, parentId, name, kind: 'machine', zone: 'UTC', ownZone: null, plantId: '1', attributes }) as Asset;
const ASSETS = [
  asset('1', null, 'Quayside'),
  asset('2', '1', 'Dryer 1', { Maker: 'Weld' }),
  asset('3', '1', 'Dryer 2', { Maker: 'Acre' }),
];
const metric = (id: string, name: string, assetId: string, assetName: string, key = `k${id}`): Metric =>
  ({
    id,
    key,
    name,
    assetId,
    assetName,
    plantName: 'Quayside',
    unit: 'kWh',
    kind: 'amount',
    origin: 'samples',
  }) as Metric;
const METRICS = [
  metric('10', 'Gas used', '2', 'Dryer 1'),
  metric('11', 'Gas used', '3', 'Dryer 2'),
  metric('12', 'Air used', '3', 'Dryer 2'),
];

const TREE = { 'GET /api/assets': ASSETS, 'GET /api/metrics': METRICS };

/** Keeps the value as its parent would. */
function Kept<T>({
  first,
  heard,
  draw,
}: {
  first: T;
  heard: T[];
  draw: (value: T, set: (value: T) => void) => React.ReactNode;
}) {
  const [value, set] = useState(first);
  return draw(value, (next) => {
    heard.push(next);
    set(next);
  });
}

describe('ScopePanel', () => {
  it('takes assets and values of attributes in and out, down to all again', async () => {
    const heard: Scope[] = [];
    const { person } = renderScreen(
      <Kept<Scope>
        first={WHOLE_SCOPE}
        heard={heard}
        draw={(scope, set) => <ScopePanel scope={scope} onChange={set} />}
      />,
      TREE,
    );
    await person.click(await screen.findByRole('checkbox', { name: 'Dryer 2' }));
    expect(heard.at(-1)).toEqual({ assetIds: ['3'], attributes: [] });
    expect(screen.getByText('1 chosen, with everything below')).toBeTruthy();
    await person.click(await screen.findByRole('button', { name: 'Only with an attribute' }));
    await person.click(screen.getByText('Maker').closest('[role=radio]')!);
    expect(heard.at(-1)!.attributes).toEqual([{ name: 'Maker', values: ['Acre'] }]);
    await person.click(screen.getByRole('checkbox', { name: 'Weld' }));
    expect(heard.at(-1)!.attributes).toEqual([{ name: 'Maker', values: ['Acre', 'Weld'] }]);
    await person.click(screen.getByRole('button', { name: 'All assets' }));
    expect(heard.at(-1)).toEqual(WHOLE_SCOPE);
  });

  it('finds assets by the beginning of words, with what stands above', async () => {
    renderScreen(<ScopePanel scope={WHOLE_SCOPE} onChange={() => undefined} />, TREE);
    fireEvent.change(screen.getByLabelText('Search assets'), { target: { value: 'dryer 1' } });
    await waitFor(() =>
      expect(screen.getAllByRole('checkbox').map((each) => each.textContent)).toEqual([
        'Quayside',
        'Dryer 1',
      ]),
    );
  });
});

describe('HoursPanel', () => {
  it('joins conditions by all or any, and takes them away again', async () => {
    const heard: (HoursFilter | null)[] = [];
    const { person } = renderScreen(
      <Kept<HoursFilter | null>
        first={null}
        heard={heard}
        draw={(hours, set) => <HoursPanel hours={hours} onChange={set} />}
      />,
    );
    await person.click(screen.getByRole('radio', { name: 'between times of day' }));
    expect(heard.at(-1)).toEqual({ kind: 'clock', from: '22:00', to: '06:00' });
    fireEvent.change(screen.getByLabelText('From'), { target: { value: '20:30' } });
    expect(heard.at(-1)).toEqual({ kind: 'clock', from: '20:30', to: '06:00' });
    await person.click(screen.getByRole('radio', { name: 'on weekdays' }));
    await person.click(screen.getByRole('radio', { name: 'any may hold' }));
    await person.click(screen.getByRole('checkbox', { name: 'Fri' }));
    expect(heard.at(-1)).toEqual({
      kind: 'any',
      of: [
        { kind: 'clock', from: '20:30', to: '06:00' },
        { kind: 'weekdays', days: [5, 6, 7] },
      ],
    });
    expect(screen.getByText('Only 20:30 to 06:00 or on Fridays, Saturdays, Sundays')).toBeTruthy();
    await person.click(screen.getAllByRole('button', { name: 'Remove this condition' })[0]);
    await person.click(screen.getByRole('button', { name: 'Remove this condition' }));
    expect(heard.at(-1)).toBeNull();
  });

  it('shows hours it cannot change in words, and replaces them only when asked', async () => {
    const heard: (HoursFilter | null)[] = [];
    const { person } = renderScreen(
      <HoursPanel hours={{ kind: 'shift', name: 'Early' }} onChange={(hours) => heard.push(hours)} />,
    );
    expect(screen.getByText('Now: in shift Early')).toBeTruthy();
    expect(heard).toEqual([]);
    await person.click(screen.getByRole('button', { name: 'All hours' }));
    expect(heard).toEqual([null]);
  });
});

describe('the editor', () => {
  type Parts = ReadoutParts & { readonly form?: ReadoutForm };
  const made = ({ form = 'trend', ...parts }: Parts = {}): Readout =>
    makeReadout('r', form, { measures: [{ metricId: '10', summary: 'sum', per: null }], ...parts });
  const readout = made();

  it('groups by any attribute, and asks what becomes of assets without it', async () => {
    const heard: object[] = [];
    const panel = (parts: Parts) => (
      <GroupPanel readout={made(parts)} metricName="Gas used" onChange={(change) => heard.push(change)} />
    );
    const { person, rerender } = renderScreen(panel({}), TREE);
    await person.click((await screen.findByText('By Maker')).closest('[role=radio]')!);
    expect(heard.at(-1)).toEqual({ groupBy: { kind: 'attribute', name: 'Maker' } });
    rerender(panel({ groupBy: { kind: 'attribute', name: 'Maker' } }));
    await person.click(screen.getByRole('radio', { name: 'drop them' }));
    expect(heard.at(-1)).toEqual({ keepBlanks: false });
  });

  it('adds further metrics, never one twice, and takes them away', async () => {
    const added: string[] = [];
    const removed: number[] = [];
    const { person } = renderScreen(
      <MorePanel
        readout={{
          ...readout,
          measures: [...readout.measures, { metricId: '11', summary: 'sum', per: null }],
        }}
        metrics={METRICS}
        onAdd={({ id }) => added.push(id)}
        onRemove={(at) => removed.push(at)}
        onChange={() => undefined}
      />,
      TREE,
    );
    expect(await screen.findAllByRole('radio')).toHaveLength(1);
    await person.click(screen.getByRole('radio', { name: /Air used/ }));
    await person.click(screen.getByRole('button', { name: 'Remove Gas used, Dryer 2' }));
    expect([added, removed]).toEqual([['12'], [1]]);
  });

  it('begins fixed ends with those shown, and names an address that leads nowhere', async () => {
    const heard: ReadoutParts[] = [];
    const automatic = { title: 'Dryer 1 gas used', footnote: null };
    const panel = (parts: Parts) => (
      <AppearancePanel
        metrics={new Map()}
        readout={made(parts)}
        automatic={automatic}
        ends={[0, 40]}
        onChange={(change) => heard.push(change)}
      />
    );
    const { person, rerender } = renderScreen(panel({}), TREE);
    expect(screen.getByPlaceholderText('Dryer 1 gas used')).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'fixed' }));
    expect(heard.at(-1)).toEqual({ scale: { ...DEFAULT_TREND_SCALE, ends: [0, 40] } });
    rerender(panel({ scale: { ends: [40, 0] }, link: 'javascript:alert(1)' }));
    expect(screen.getByText('must lie above the start')).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'to an address' }));
    expect(
      screen.getByText('This is not a page of this app, a web address or an e-mail address.'),
    ).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'Columns' }));
    expect(heard.at(-1)).toEqual({ mark: 'columns' });
  });

  it('has the place that its numbers lead to picked from the boards', async () => {
    const heard: ReadoutParts[] = [];
    const { person } = renderScreen(
      <AppearancePanel
        metrics={new Map()}
        readout={made({})}
        automatic={{ title: 'Dryer 1 gas used', footnote: null }}
        ends={[0, 40]}
        onChange={(change) => heard.push(change)}
      />,
      {
        ...TREE,
        'GET /api/boards': {
          items: [listedBoard({ title: 'Ironers' })],
          total: 1,
        },
      },
    );
    await person.click(screen.getByRole('radio', { name: 'to a board' }));
    await person.click(await screen.findByRole('radio', { name: /^Ironers/ }));
    expect(heard.at(-1)).toEqual({ link: '/boards/3' });
    await person.click(screen.getByRole('radio', { name: 'nowhere' }));
    expect(heard.at(-1)).toEqual({ link: null });
  });

  it('groups several metrics only after the others were left out', async () => {
    const heard: unknown[] = [];
    const measures = ['1', '2'].map((metricId) => ({ metricId, summary: 'mean' as const, per: null }));
    const { person } = renderScreen(
      <GroupPanel
        readout={made({ measures })}
        metricName="Gas used"
        onChange={(change) => heard.push(change)}
      />,
      TREE,
    );
    expect(screen.queryByRole('radio', { name: 'By asset' })).toBeNull();
    await person.click(screen.getByRole('button', { name: 'Keep only Gas used' }));
    expect(heard).toEqual([{ measures: measures.slice(0, 1) }]);
  });

  it('takes the ends of a scale from a band where there is one, and puts the sectors of a gauge in their place', async () => {
    const heard: ReadoutParts[] = [];
    const band = { direction: 'lower' as const, caution: 20, breach: 30, target: 10 };
    const panel = (parts: Parts) => (
      <AppearancePanel
        metrics={new Map()}
        readout={made({ form: 'gauge', ...parts })}
        automatic={{ title: 'Dryer 1 gas used', footnote: null }}
        ends={[0, 40]}
        onChange={(change) => heard.push(change)}
      />
    );
    const { person, rerender } = renderScreen(panel({ band: null }));
    expect(screen.queryByRole('radio', { name: 'from the target band' })).toBeNull();
    rerender(panel({ band, scale: { reversed: true } }));
    await person.click(screen.getByRole('radio', { name: 'from the target band' }));
    expect(heard.at(-1)).toEqual({ scale: { ...DEFAULT_ROUND_SCALE, reversed: true, fromTarget: true } });
    await person.click(screen.getByRole('radio', { name: 'outside it' }));
    expect(heard.at(-1)).toEqual({ scale: { ...DEFAULT_ROUND_SCALE, reversed: true, sectors: 'outside' } });
    rerender(panel({ form: 'trend' }));
    expect(screen.queryByRole('radio', { name: 'outside it' })).toBeNull();
    await person.click(screen.getByRole('radio', { name: 'as many as fit' }));
    expect(heard.at(-1)).toEqual({ pointLabels: true });
  });
});

describe('a new board', () => {
  const answers = {
    'GET /api/assets': ASSETS,
    'GET /api/metrics': METRICS,
    'POST /api/boards': ({ body }: { body: object }) => makeBoard({ ...body, id: '5', revision: 1 }),
  } as never;

  it('is empty, or begun for an asset with what lies below it', async () => {
    const done = jest.fn();
    const { person, sent } = renderScreen(<NewBoard onDone={done} />, answers);
    await person.click(screen.getByRole('radio', { name: 'For an asset' }));
    expect(screen.getByRole('button', { name: 'Create the board' }).getAttribute('aria-disabled')).toBe(
      'true',
    );
    await person.click((await screen.findAllByText('Quayside'))[0].closest('[role=radio]')!);
    await person.click(screen.getByRole('radio', { name: '1 level below' }));
    expect((screen.getByLabelText('Title') as HTMLInputElement).value).toBe('Quayside');
    expect(screen.getByText(/^2 readouts/)).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Create the board' }));
    await waitFor(() => expect(done).toHaveBeenCalled());
    expect(mockPush).toHaveBeenCalledWith('/boards/5');
    const { document } = sent.find(({ method }) => method === 'POST')!.body as { document: BoardDocument };
    expect(document.readouts.map(({ form, groupBy }) => [form, groupBy?.kind])).toEqual([
      ['straight', 'asset'],
      ['figure', undefined],
    ]);
  });
});

describe('BoardFileIn', () => {
  const document: BoardDocument = {
    version: 3,
    window: { kind: 'toDate', unit: 'day' },
    scope: WHOLE_SCOPE,
    hours: null,
    readouts: [
      { ...emptyReadout('a', 'figure'), measures: [{ metricId: '10', summary: 'sum', per: null }] },
      { ...emptyReadout('b', 'figure'), measures: [{ metricId: '11', summary: 'sum', per: null }] },
    ],
  };
  const choose = (text: string): void => {
    const file = new File([text], 'b.json');
    // Not every test browser has it.
    Object.defineProperty(file, 'text', { value: async () => text });
    fireEvent.change(screen.getByLabelText('Board file'), { target: { files: [file] } });
  };

  it('maps what it does not know by hand, leaves out what stays unknown, and says how much', async () => {
    const taken: BoardDocument[] = [];
    const there = [
      metric('77', 'Gas used', '2', 'Dryer 1', 'k10'),
      metric('78', 'Steam gas', '9', 'Boiler', 'x'),
    ];
    const { person } = renderScreen(
      <BoardFileIn saving={false} onTake={(_title, made) => taken.push(made)} />,
      { 'GET /api/metrics': there },
    );
    choose(writeBoardFile('Dryers', document, METRICS));
    expect(await screen.findByText('1 of 2 readouts can be shown here.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Choose a metric' }));
    await person.click(await screen.findByRole('radio', { name: /Steam gas/ }));
    expect(screen.getByText('2 of 2 readouts can be shown here.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Create the board' }));
    expect(taken[0].readouts.map(({ measures }) => measures[0].metricId)).toEqual(['77', '78']);
  });

  it.each([
    ['{', /not valid JSON/],
    ['{"kind":"other"}', /not a board file/],
  ])('refuses %p with the reason, and takes nothing', async (text, reason) => {
    renderScreen(<BoardFileIn saving={false} onTake={() => undefined} />);
    choose(text);
    expect((await screen.findByRole('alert')).textContent).toMatch(reason);
    expect(screen.queryByRole('button', { name: 'Create the board' })).toBeNull();
  });
});

describe('ReadoutTools', () => {
  it('keeps size, copy and removal in a tray; sizes only where there is room for them', async () => {
    const done: string[] = [];
    const note = (what: string) => (): void => void done.push(what);
    const actions: ReadoutActions = {
      edit: note('edit'),
      move: (_readout, step) => done.push(`move ${step}`),
      resize: (_readout, by) => done.push(`resize ${JSON.stringify(by)}`),
      copy: note('copy'),
      duplicate: note('duplicate'),
      remove: note('remove'),
    };
    const tools = (wide: boolean) => (
      <ReadoutTools title="Gas" readout={emptyReadout('r', 'gauge')} wide={wide} actions={actions} />
    );
    const { person, unmount } = renderScreen(tools(true));
    await person.click(screen.getByRole('button', { name: 'Move Gas towards the end' }));
    await person.click(screen.getByRole('button', { name: 'More for Gas' }));
    await person.click(screen.getByRole('button', { name: 'Wider' }));
    await person.click(screen.getByRole('button', { name: 'Duplicate' }));
    expect(done).toEqual(['move 1', 'resize {"columns":1,"rows":0}', 'duplicate']);
    unmount();
    renderScreen(tools(false));
    await person.click(screen.getByRole('button', { name: 'More for Gas' }));
    expect(screen.getByRole('button', { name: 'Duplicate' })).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Wider' })).toBeNull();
  });
});
