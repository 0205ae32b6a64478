import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { MeasureValues, Query, QueryAnswer } from '@vivid-beacon/core';
import { listedBoard } from '../testing/boards';
import { signedIn } from '../testing/signedIn';
import { groups as ironers, measured, showReadout as show, trendReadout } from '../testing/showReadout';

/* Forms that compare assets and groups: what a tap on their parts does. */

jest.setTimeout(30_000);
jest.mock('../hooks/useWidth', () => ({ useWidth: () => [600, () => undefined] }));
const mockPush = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: mockPush }) }));

const BY_ASSET = { groupBy: { kind: 'asset' as const } };
const part = (name: RegExp | string): HTMLElement => screen.getByRole('button', { name, hidden: true });

/** One group an ironer, with ids as the server has them. */
function groups(...values: (number | null)[]): QueryAnswer {
  const answer = ironers(...values);
  return { ...answer, groups: answer.groups.map((group, i) => ({ ...group, assetId: String(11 + i) })) };
}

/** The answer for groups with further measures beside the first. */
const wider = (answer: QueryAnswer, ...more: number[][]): QueryAnswer => ({
  ...answer,
  units: ['°C', ...more.map(() => 'kWh')],
  groups: answer.groups.map((group, g) => ({
    ...group,
    measures: [
      group.measures[0],
      ...more.map((values): MeasureValues => ({ ...group.measures[0], values: [values[g]] })),
    ],
  })),
});

/** What is asked of the groups and of everything else. */
const byGroup =
  (of: QueryAnswer, other: QueryAnswer = measured(1)) =>
  ({ body }: { body: Query }): QueryAnswer =>
    body.groupBy.kind === 'all' || body.provenance ? other : of;

describe('small copies', () => {
  it('do what their readout does, each within its own group', async () => {
    const asked: Query[] = [];
    const inPlants = (answer: QueryAnswer): QueryAnswer => ({
      ...answer,
      groups: answer.groups.map((group, i) => ({
        ...group,
        path: [i === 0 ? 'Quayside' : 'Foundry Lane'],
        pathAssetIds: [i === 0 ? '7' : '8'],
      })),
    });
    const { person } = show({ form: 'ranking', groupBy: { kind: 'all' }, multiplesBy: { kind: 'plant' } }, {
      'POST /api/readings/query': ({ body }: { body: Query }) => {
        asked.push(body);
        return body.within.length > 0 ? inPlants(groups(203, 190, 180)) : measured(1);
      },
      'POST /api/readings/trend': trendReadout([1, 2]),
    } as never);
    const copy = await screen.findByRole('group', { name: 'Foundry Lane' });
    expect(within(copy).getByRole('group', { name: /, Foundry Lane: 2 groups/ })).toBeTruthy();
    expect(within(screen.getByRole('group', { name: 'Quayside' })).getByRole('heading')).toBeTruthy();
    fireEvent.click(within(copy).getByRole('button', { name: /^Ironer 2, .*How it was made/, hidden: true }));
    await person.click(await screen.findByRole('button', { name: 'Show it over time' }));
    // The trend is that of the copy's plant alone.
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({
        groupBy: { kind: 'all' },
        scope: { assetIds: ['8'] },
        within: [],
      }),
    );
  });
});

describe('a ranking', () => {
  it('focuses by a name, opens how a number was made, and steps down to parts and back', async () => {
    const asked: Query['groupBy'][] = [];
    const { person, onFocus } = show({ form: 'ranking', ...BY_ASSET }, {
      'POST /api/readings/query': ({ body }: { body: Query }) => {
        asked.push(body.groupBy);
        return byGroup(groups(203, 190, null))({ body });
      },
    } as never);
    await screen.findByRole('group', { name: /^Bed temperature, by asset: 3 assets, largest first/ });
    fireEvent.click(part('Ironer 1. Focus on it'));
    expect(onFocus).toHaveBeenCalledWith('11');
    fireEvent.click(part(/^Ironer 1, Bed temperature 203.*Caution\. How it was made/));
    await person.click(await screen.findByRole('button', { name: 'Show its parts' }));
    const path = await screen.findByRole('navigation', { name: 'Where its parts are shown' });
    expect(within(path).getByText('› Ironer 1')).toBeTruthy();
    expect(asked.at(-1)).toEqual({ kind: 'part', assetId: '11' });
    await person.click(within(path).getByRole('button', { name: 'All' }));
    expect(screen.queryByRole('navigation', { name: 'Where its parts are shown' })).toBeNull();
  });

  it('is sorted by another column for as long as one looks', async () => {
    const measures = ['1', '2'].map((metricId) => ({ metricId, summary: 'mean' as const, per: null }));
    const { person } = show({ form: 'ranking', measures, ...BY_ASSET }, {
      'POST /api/readings/query': byGroup(wider(groups(203, 190, 195), [1, 5, 3])),
    } as never);
    const drawn = await screen.findByRole('group', { name: /1\. Ironer 1/ });
    fireEvent.click(part(/^Sort by Bed temperature$/));
    expect(drawn.getAttribute('aria-label')).toMatch(/1\. Ironer 2 .*2\. Ironer 3 .*3\. Ironer 1/);
    await person.click(screen.getByRole('button', { name: 'Show it as saved' }));
    expect(drawn.getAttribute('aria-label')).toMatch(/1\. Ironer 1/);
  });

  it('leads from a number to the boards that show its asset, to a rule and to a flag with the number', async () => {
    const { person } = show({ form: 'ranking', ...BY_ASSET }, {
      'POST /api/readings/query': byGroup(groups(203, 190, 195), measured(203)),
      'GET /api/boards': { items: [listedBoard({ id: '5', title: 'Ironing hall' })], total: 1 },
      'GET /api/people': [],
      'GET /api/session': signedIn('analyst'),
    } as never);
    await screen.findByRole('group', { name: /largest first/ });
    fireEvent.click(part(/^Ironer 2, Bed temperature 190.*How it was made/));
    await person.click(await screen.findByRole('button', { name: 'Boards that show it' }));
    await person.click(await screen.findByText('Ironing hall'));
    expect(mockPush).toHaveBeenLastCalledWith({
      pathname: '/boards/[boardId]',
      params: { boardId: '5', focus: '12' },
    });
    fireEvent.click(part(/^Ironer 2, Bed temperature 190.*How it was made/));
    await person.click(await screen.findByRole('button', { name: 'Write an alarm rule for it' }));
    expect(mockPush).toHaveBeenLastCalledWith({ pathname: '/alarms/rules/new', params: { metric: '2' } });
    fireEvent.click(part(/^Ironer 2, Bed temperature 190.*How it was made/));
    await person.click(await screen.findByRole('button', { name: 'Flag it' }));
    expect(await screen.findByDisplayValue('Check Ironer 2, Ironer 2')).toBeTruthy();
  });
});

describe('ways on from a value', () => {
  it('lead to its course, and to the alarms and flags of its time', async () => {
    const { person } = show({ form: 'ranking', ...BY_ASSET }, {
      'POST /api/readings/query': byGroup(groups(203, 190, 195), measured(203)),
      'POST /api/readings/trend': trendReadout([181, 182]),
      'GET /api/alarms/on-time': [{ id: '77', metricId: '2', raisedAt: 1_700_000_000_000 }],
      'GET /api/flags/on-time': [],
    } as never);
    await screen.findByRole('group', { name: /largest first/ });
    fireEvent.click(part(/^Ironer 2, Bed temperature 190.*How it was made/));
    await person.click(await screen.findByRole('button', { name: 'Its alarms and flags' }));
    expect(await screen.findByText('No flag is about this time.')).toBeTruthy();
    await person.click(await screen.findByText(/^Alarm, /));
    expect(mockPush).toHaveBeenLastCalledWith('/alarms/77');
    fireEvent.click(part(/^Ironer 2, Bed temperature 190.*How it was made/));
    await person.click(await screen.findByRole('button', { name: 'Show it over time' }));
    expect(await screen.findByRole('dialog', { name: 'Ironer 2' })).toBeTruthy();
  });
});

describe('a table', () => {
  const answers = { 'POST /api/readings/query': byGroup(groups(203, 190)) } as never;

  it('has columns that are made wider by keys and by a pointer, until they are let go, and can be saved so', async () => {
    const { person, onKeep } = show({ form: 'table', ...BY_ASSET }, answers);
    const handle = () => screen.findByRole('separator', { name: /^Width of Bed temperature/, hidden: true });
    const width = async (): Promise<number> => Number((await handle()).getAttribute('aria-valuenow'));
    const first = await width();
    fireEvent.keyDown(await handle(), { key: 'ArrowRight' });
    await waitFor(async () => expect(await width()).toBe(first + 8));
    const held = await handle();
    held.setPointerCapture = jest.fn();
    // The test page has no places in its pointer events.
    const point = (on: HTMLElement, type: string, clientX: number): boolean =>
      fireEvent(on, new MouseEvent(type, { clientX, bubbles: true }));
    point(held, 'pointerdown', 100);
    point(await handle(), 'pointermove', 60);
    await waitFor(async () => expect(await width()).toBe(first + 8 - 40));
    expect(onKeep).not.toHaveBeenCalled();
    point(await handle(), 'pointerup', 50);
    await waitFor(async () => expect(await width()).toBe(first + 8 - 50));
    await person.click(screen.getByRole('button', { name: 'Save it so' }));
    expect(onKeep).toHaveBeenCalledWith('r', {
      widths: [{ column: expect.any(String) as string, width: first - 42 }],
    });
    fireEvent.keyDown(await handle(), { key: 'Delete' });
    await waitFor(async () => expect(await width()).toBe(first));
  });

  it('opens how a computed cell was worked out, and from there how each value in it was made', async () => {
    const computed = [{ name: 'Twice', expression: 'a * 2', unit: '°C' }];
    const { person } = show({ form: 'table', ...BY_ASSET, computed }, answers);
    fireEvent.click(
      await screen.findByRole('button', { name: /^Ironer 1, Twice 406.*worked out/, hidden: true }),
    );
    const tray = await screen.findByRole('dialog', { name: 'How "Ironer 1, Twice" was worked out' });
    expect(within(tray).getByText('a * 2')).toBeTruthy();
    await person.click(within(tray).getByRole('link', { name: /^a = 203/ }));
    await screen.findByRole('dialog', { name: /^How "Bed temperature, by asset, Ironer 1.*" was made/ });
  });

  it('tells in full what the logs say, and makes the time of a cell the window of the board', async () => {
    const two = (answer: QueryAnswer): QueryAnswer => {
      const { start, end } = answer.window;
      const middle = (start + end) / 2;
      return {
        ...answer,
        start: [start, middle],
        end: [middle, end],
        groups: answer.groups.map((group) => ({
          ...group,
          measures: group.measures.map((values) => ({
            ...values,
            values: [values.values[0], 7],
            coverage: [1, 1],
            samples: [5, 5],
          })),
        })),
      };
    };
    const { person, onStretch } = show({ form: 'table', ...BY_ASSET, periods: 'hour', notes: ['stops'] }, {
      'POST /api/readings/query': ({ body }: { body: Query }) => {
        const answer = byGroup(groups(203, 190))({ body });
        return body.bucket === null || body.groupBy.kind === 'all' ? answer : two(answer);
      },
      'POST /api/readings/notes': {
        now: 0,
        notes: [
          {
            assetId: '11',
            span: 0,
            stoppedMs: 3_600_000,
            reasons: [{ reason: 'Belt torn', ms: 3_600_000 }],
            open: false,
            remarks: [],
          },
        ],
      },
    } as never);
    fireEvent.click(
      await screen.findByRole('button', { name: /^Ironer 1, Stopped 1\.0: Belt torn/, hidden: true }),
    );
    const told = await screen.findByRole('dialog', { name: 'Ironer 1: Stopped' });
    expect(within(told).getByText(/^Belt torn 1\.0/)).toBeTruthy();
    await person.click(within(told).getAllByRole('button', { name: 'Close' })[0]);
    fireEvent.click(part(/^Ironer 1, Thu 19 Nov, 06:10.* 7\s.*How it was made/));
    await person.click(await screen.findByRole('button', { name: "Make its time the board's window" }));
    expect(onStretch).toHaveBeenCalledWith(expect.objectContaining({ kind: 'absolute' }));
  });

  it('opens groups, sorts by heads, opens how a number was made, and goes out as text', async () => {
    const outer: QueryAnswer = {
      ...groups(100),
      groups: [{ ...groups(100).groups[0], name: 'Quayside', assetId: '10' }],
    };
    const inner: QueryAnswer = {
      ...groups(60, 40),
      groups: groups(60, 40).groups.map((group) => ({ ...group, path: ['Quayside'] })),
    };
    const { person } = show(
      {
        form: 'table',
        measures: [{ metricId: '1', summary: 'sum', per: null }],
        groupBy: { kind: 'plant' },
        steps: [{ kind: 'asset' }],
        band: null,
        computed: [{ name: 'Half', expression: 'a / 2', unit: '°C' }],
      },
      {
        'POST /api/readings/query': ({ body }: { body: Query }) =>
          body.groupBy.kind === 'all' || body.provenance
            ? measured(100)
            : body.groupBy.kind === 'plant'
              ? outer
              : inner,
      } as never,
    );
    await screen.findByRole('group', { name: /: One plant\. Arrow keys/ });
    expect(screen.queryByRole('button', { name: /^Ironer 1\. Focus/, hidden: true })).toBeNull();
    fireEvent.click(part('Open Quayside'));
    expect(part(/^Ironer 1\. Focus on it/)).toBeTruthy();
    fireEvent.click(part('Sort by Bed temperature'));
    expect(await screen.findByText('Not as it is saved.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Copy as text' }));
    expect((await navigator.clipboard.readText()).split('\n')).toEqual([
      'Name\tName, level 2\tBed temperature (°C)\tHalf (°C)',
      'Quayside\t\t100\t50',
      'Quayside\tIroner 1\t60\t30',
      'Quayside\tIroner 2\t40\t20',
      'Together\t\t100\t50',
    ]);
    fireEvent.click(part(/^Together, Bed temperature 100.*How it was made/));
    expect(await screen.findByText('mean of Bed temperature (Ironer 1)')).toBeTruthy();
  });
});

describe('a scatter', () => {
  it('names and focuses the point that is tapped, and lists the same numbers', async () => {
    const measures = ['1', '2'].map((metricId) => ({ metricId, summary: 'mean' as const, per: null }));
    const { person, onFocus } = show({ form: 'scatter', measures, ...BY_ASSET }, {
      'POST /api/readings/query': byGroup(wider(groups(203, 190, null), [1, 5, 3])),
    } as never);
    await screen.findByRole('group', { name: /2 points, .*Ironer 3 without both values is not drawn/ });
    fireEvent.click(part(/^Ironer 2: /));
    expect(onFocus).toHaveBeenCalledWith('12');
    expect(
      screen.getAllByRole('button', { name: /Ironer 2, Bed temperature\. How it was made/ }),
    ).toHaveLength(2);
    await person.click(screen.getByRole('button', { name: 'Show them as a list' }));
    expect(
      await screen.findByRole('group', { name: /3 assets, by bed temperature, largest first/ }),
    ).toBeTruthy();
  });
});

describe('a breakdown', () => {
  it('lets parts be picked, and the total follows', async () => {
    const sum = [{ metricId: '1', summary: 'sum' as const, per: null }];
    show({ form: 'breakdown', measures: sum, band: null, ...BY_ASSET }, {
      'POST /api/readings/query': byGroup(groups(50, 30, 20), measured(100)),
    } as never);
    await screen.findByRole('group', { name: /Together 100\.0/ });
    fireEvent.click(part('Leave Ironer 1 out of the total'));
    expect(await screen.findByRole('group', { name: /Together 50\.0/ })).toBeTruthy();
    fireEvent.click(part('Count Ironer 1 in the total'));
    expect(await screen.findByRole('group', { name: /Together 100\.0/ })).toBeTruthy();
  });
});

describe('a heat grid', () => {
  it('opens a cell with its numbers and the trend behind it', async () => {
    const hours = Array.from({ length: 24 }, (_, i) => 180 + i);
    const answer = groups(1);
    const day: QueryAnswer = {
      ...answer,
      start: hours.map((_, i) => answer.window.start + i * 3_600_000),
      end: hours.map((_, i) => answer.window.start + (i + 1) * 3_600_000),
      cells: { columns: 24, hours: hours.map(() => 7), working: hours.map((_, i) => (i < 6 ? 0 : 1)) },
      groups: answer.groups.map((group) => ({
        ...group,
        measures: [
          {
            ...group.measures[0],
            values: hours,
            coverage: hours.map(() => 1),
            samples: hours.map(() => 420),
          },
        ],
      })),
    };
    show({ form: 'grid', layout: 'groupHour' }, {
      'POST /api/readings/query': day,
      'POST /api/readings/trend': trendReadout([181, 182]),
    } as never);
    await screen.findByRole('group', { name: /Highest Ironer 1, 23 203/ });
    fireEvent.click(part(/^Ironer 1, 03 183.*Open its trend/));
    const tray = await screen.findByRole('dialog');
    expect(within(tray).getByText(/100 % of 7\.0 h/)).toBeTruthy();
    expect(within(tray).getByText('outside working hours')).toBeTruthy();
  });
});
