import type { Asset, Metric, QueryAnswer, ReadoutOf, ReadoutParts } from '@vivid-beacon/core';
import { localWindow, WHOLE_SCOPE } from '@vivid-beacon/core';
import {
  scaledForDisplay,
  readoutValues,
  readoutQuery,
  resolveReadout,
  shortNames,
  makeReadout,
} from '@vivid-beacon/core/src/boards';
import { filterParams, readFilters } from '@vivid-beacon/core';
import { NO_HISTORY, redone, remember, undone } from './history';
import { hoursList, hoursOfList } from './hoursParts';
import { setAttribute, toggleAsset } from './scopeEdits';

const metric = (id: string, name: string, assetId: string): Metric =>
  ({ id, name, assetId, assetName: `Asset ${assetId}`, plantId: 'p', unit: '°C', kind: 'level' }) as Metric;
const METRICS = [
  metric('1', 'Bed temperature', 'a'),
  metric('2', 'Bed temperature', 'b'),
  metric('3', 'Speed', 'a'),
];
const BY_ID = new Map(METRICS.map((each) => [each.id, each]));
const ASSETS = [
  { id: 'p', path: ['p'], attributes: {} },
  { id: 'a', path: ['p', 'a'], attributes: { Maker: 'Weld', Line: 2 } },
  { id: 'b', path: ['p', 'b'], attributes: { Maker: 'Acre', Line: 10 } },
] as unknown as Asset[];
const known = (focus: string | null) => ({
  metrics: BY_ID,
  ofFocus: METRICS.filter(({ assetId }) => assetId === focus),
  assets: new Map(ASSETS.map((asset) => [asset.id, asset])),
});
const KNOWN = known(null);
const readout = (parts: ReadoutParts = {}): ReadoutOf<'gauge'> =>
  makeReadout('r', 'gauge', { measures: [{ metricId: '1', summary: 'mean', per: null }], ...parts });
const LOOK = {
  window: { kind: 'toDate' as const, unit: 'day' as const },
  scope: WHOLE_SCOPE,
  hours: null,
  focus: null,
};

describe('a look in an address', () => {
  it('comes back as it was', () => {
    const look = {
      window: { kind: 'rolling' as const, count: 3, unit: 'day' as const },
      scope: { assetIds: ['4'], attributes: [{ name: 'Maker', values: ['Weld'] }] },
      hours: { kind: 'weekdays' as const, days: [6, 7] },
      focus: '12',
    };
    expect(readFilters(filterParams(look))).toEqual(look);
    expect(readFilters(filterParams({ ...look, hours: null }))).toEqual({ ...look, hours: null });
    expect(filterParams({ window: null, scope: null, hours: undefined, focus: null })).toEqual({});
  });

  it('is as saved where it cannot be read', () => {
    expect(readFilters({ window: 'soon', scope: '{"assetIds": 5}', hours: '{', focus: 'me' })).toEqual({
      window: null,
      scope: null,
      hours: undefined,
      focus: null,
    });
  });
});

describe('resolveReadout', () => {
  it('follows the focus with the metric of the same name of the focused asset, under a title made anew', () => {
    const { readout: shown, follows } = resolveReadout(
      readout({ title: 'Ironer 1' }),
      { ...LOOK, focus: 'b' },
      known('b'),
    );
    expect(follows).toBe(true);
    expect(shown.measures[0].metricId).toBe('2');
    expect(shown.title).toBeNull();
  });

  it.each([
    [
      'the focused asset lacks a metric',
      readout({ measures: [{ metricId: '3', summary: 'mean', per: null }] }),
      'b',
    ],
    ['it is of the focused asset already', readout(), 'a'],
    ['it is grouped', readout({ groupBy: { kind: 'asset' } }), 'b'],
    ['nothing is focused', readout(), null],
  ])('keeps its own when %s', (_when, own, focus) => {
    const { readout: shown, follows } = resolveReadout(own, { ...LOOK, focus }, known(focus));
    expect([shown, follows]).toEqual([own, false]);
  });

  it('joins scope and hours with those of its board, and keeps a window of its own', () => {
    const night = { kind: 'clock' as const, from: '22:00', to: '06:00' };
    const weekend = { kind: 'weekdays' as const, days: [6, 7] };
    const own = readout({
      window: { kind: 'toDate', unit: 'year' },
      hours: night,
      scope: { assetIds: ['a', 'b'], attributes: [] },
    });
    const shown = resolveReadout(
      own,
      { ...LOOK, hours: weekend, scope: { assetIds: ['b'], attributes: [] } },
      KNOWN,
    );
    expect(shown.window).toEqual({ kind: 'toDate', unit: 'year' });
    expect(shown.scope.assetIds).toEqual(['b']);
    expect(shown.hours).toEqual({ kind: 'all', of: [weekend, night] });
  });
});

describe('groups', () => {
  const own = readout({
    groupBy: { kind: 'asset' },
    band: { direction: 'lower', caution: 200, breach: 205, target: 195 },
  });
  const group = (name: string, assetId: string, value: number | null, coverage: number) => ({
    name,
    assetId,
    measures: [{ metricIds: ['1'], withinIds: [], values: [value], coverage: [coverage], samples: [60] }],
  });
  const answer = {
    units: ['°C'],
    now: 2,
    window: { start: 0, end: 1 },
    groups: [
      group('Quayside / Ironer 1', 'a', 190, 1),
      group('Quayside / Ironer 2', 'b', 210, 1),
      group('Quayside / Ironer 3', 'a', 210, 0.5),
      group('', 'a', null, 0),
    ],
  } as unknown as QueryAnswer;

  it('ask for every metric of the same name, and give each value its level', () => {
    const query = readoutQuery(resolveReadout(own, LOOK, KNOWN), BY_ID);
    expect(query).toMatchObject({
      measures: [{ select: { metricName: 'Bed temperature' } }],
      groupBy: { kind: 'asset' },
      bucket: null,
    });
    const parts = readoutValues(answer, own, BY_ID);
    expect(parts.map(({ name, level, assetId }) => [name, level, assetId])).toEqual([
      ['Quayside / Ironer 1', 'clear', 'a'],
      ['Quayside / Ironer 2', 'breach', 'b'],
      ['Quayside / Ironer 3', 'nodata', 'a'],
      ['not named', 'nodata', 'a'],
    ]);
    expect(readoutValues(answer, { ...own, keepBlanks: false }, BY_ID).map(({ name }) => name)).toEqual([
      'Ironer 1',
      'Ironer 2',
      'Ironer 3',
    ]);
  });

  it('are named without what they all begin with', () => {
    expect(shortNames(['A / B', 'A / C'])).toEqual(['B', 'C']);
    expect(shortNames(['A / B', 'A'])).toEqual(['A / B', 'A']);
    expect(shortNames(['A / B'])).toEqual(['A / B']);
  });

  it('are shown in thousands with band and ends', () => {
    const parts = readoutValues(answer, own, BY_ID);
    const shown = scaledForDisplay(
      { ...own, display: 'thousands', scale: { ...own.scale, ends: [0, 300] } },
      parts,
    );
    expect(shown.values[1]).toMatchObject({ value: 0.21, unit: 'thousand °C' });
    expect(shown.readout.band).toEqual({ direction: 'lower', caution: 0.2, breach: 0.205, target: 0.195 });
    expect(shown.readout.scale.ends).toEqual([0, 0.3]);
  });
});

describe('undo and redo', () => {
  const at = (title: string) => ({ title, document: {} as never });

  it('go back and forth through what was done; a new change forgets what was undone', () => {
    let history = remember(remember(NO_HISTORY, at('a')), at('b'));
    const back = undone(history, at('c'))!;
    expect(back.to.title).toBe('b');
    const again = redone(back.history, back.to)!;
    expect(again.to.title).toBe('c');
    expect(undone(NO_HISTORY, at('x'))).toBeNull();
    history = remember(back.history, back.to);
    expect(redone(history, at('d'))).toBeNull();
  });
});

describe('scope and hours by hand', () => {
  it('add and take away assets and values; none left is all', () => {
    const one = toggleAsset(WHOLE_SCOPE, 'a');
    expect(one.assetIds).toEqual(['a']);
    expect(toggleAsset(one, 'a').assetIds).toBeNull();
    const weld = setAttribute(WHOLE_SCOPE.attributes, 'Maker', ['Weld']);
    expect(setAttribute(weld, 'Maker', [])).toEqual([]);
  });

  it('are a list of conditions where they can be, and come back as they were', () => {
    const night = { kind: 'clock' as const, from: '22:00', to: '06:00' };
    const any = { kind: 'any' as const, of: [night, { kind: 'weekdays' as const, days: [6] }] };
    for (const hours of [null, night, any]) expect(hoursOfList(hoursList(hours)!)).toEqual(hours);
    expect(hoursList({ kind: 'not', of: night })).toBeNull();
    expect(hoursList({ kind: 'all', of: [any] })).toBeNull();
  });
});

describe('localWindow', () => {
  it('is written in the wall clock of the site, whole seconds around the stretch', () => {
    const start = Date.UTC(2026, 6, 1, 5, 0, 0, 400);
    expect(localWindow({ start, end: start + 1000 }, 'Europe/London')).toEqual({
      kind: 'absolute',
      start: '2026-07-01T06:00:00',
      end: '2026-07-01T06:00:02',
    });
  });
});
