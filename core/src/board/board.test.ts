import fc from 'fast-check';
import { boardDocumentSchema } from './board';
import type { HoursFilter } from '../time/hoursFilter';
import { readWindowText, windowText } from '../time/windowText';
import { type WindowSpec } from '../time/windowSpec';
import { WINDOW_UNITS } from '../time/windowUnit';
import type { Metric, MetricsAlike } from '../api/metrics';
import type { Scope } from '../domain/query';
import { READOUT_FORMS, type ReadoutForm } from '../readouts/forms';
import { emptyReadout, makeReadout, type BoardDocument, type Readout, type ReadoutParts } from './board';
import { DEFAULT_TREND_SCALE } from './scaleChoice';
import { WHOLE_SCOPE } from '../domain/query';
import { placesOfBoard, readBoardFile, takeBoard, writeBoardFile } from './boardFile';
import { matchMetrics, matchPlaces } from '../files/namedThings';
import { changeForm } from './changeForm';
import { joinHours, joinScopes } from './joinScopes';
import { automaticFootnote, automaticTitle } from './readoutWords';
import { startBoard } from './startBoard';
import { upgradeBoard } from './upgradeBoard';

const WEEK: WindowSpec = { kind: 'periods', count: 7, unit: 'day', current: true };
const measure = (metricId: string, per: string | null = null): Readout['measures'][number] => ({
  metricId,
  summary: 'sum',
  per: per === null ? null : { metricId: per, summary: 'sum', factor: 1, unit: null },
});
const readout = (
  id: string,
  { form = 'gauge', ...parts }: ReadoutParts & { form?: ReadoutForm } = {},
): Readout => makeReadout(id, form, { measures: [measure('1')], ...parts });
const board = (...readouts: Readout[]): BoardDocument => ({
  version: 3,
  window: WEEK,
  scope: WHOLE_SCOPE,
  hours: null,
  readouts,
});
const metric = (id: string, name: string, assetName: string, more: Partial<Metric> = {}): Metric =>
  ({
    id,
    key: `key.${id}`,
    name,
    unit: 'kWh',
    kind: 'amount',
    origin: 'samples',
    assetId: `a${id}`,
    assetName,
    plantName: 'Quayside',
    ...more,
  }) as Metric;

describe('upgradeBoard', () => {
  it('takes a board of the first version with everything it says', () => {
    const band = { direction: 'lower' as const, caution: 3, breach: 4, target: null };
    const first = {
      version: 1,
      window: WEEK,
      readouts: [
        {
          id: 'r1',
          form: 'trend',
          title: 'Mine',
          measure: measure('7'),
          window: null,
          bucket: 'hour',
          band,
          decimals: 2,
        },
      ],
    };
    const upgraded = upgradeBoard(first);
    expect(upgraded.readouts[0]).toMatchObject({
      title: 'Mine',
      measures: [measure('7')],
      bucket: 'hour',
      band,
      decimals: 2,
    });
    expect(boardDocumentSchema.isValidSync(upgraded)).toBe(true);
    expect(upgradeBoard(upgraded)).toEqual(upgraded);
  });

  it('gives what came later its usual value, and keeps all else', () => {
    const older: Record<string, unknown> = { ...emptyReadout('r1', 'trend') };
    delete older.normalise;
    delete older.align;
    const olderScale = { ends: null, reversed: true, logarithmic: false };
    const document = {
      version: 3,
      window: { kind: 'toDate', unit: 'day' },
      scope: WHOLE_SCOPE,
      hours: null,
      readouts: [{ ...older, title: 'Mine', scale: olderScale }],
    };
    expect(upgradeBoard(document).readouts).toEqual([
      { ...emptyReadout('r1', 'trend'), title: 'Mine', scale: { ...DEFAULT_TREND_SCALE, reversed: true } },
    ]);
  });

  it('shows per an attribute what a trend showed so as a whole, and says nothing by a band that was not drawn', () => {
    const trend = makeReadout('r1', 'trend', {
      measures: [measure('7'), { ...measure('8'), per: { ...measure('9'), factor: 1, unit: null } }],
      band: { direction: 'lower', caution: 3, breach: 4, target: null },
    });
    const document = {
      version: 3,
      window: { kind: 'toDate', unit: 'day' },
      scope: WHOLE_SCOPE,
      hours: null,
      readouts: [{ ...trend, normalise: { by: 'attribute', name: 'Beds' } }],
    };
    const upgraded = upgradeBoard(document);
    expect(upgraded.readouts[0]).toMatchObject({
      measures: [{ metricId: '7', perAttribute: 'Beds' }, trend.measures[1]],
      normalise: null,
      band: null,
    });
    expect(upgraded.readouts[0].measures[1]).not.toHaveProperty('perAttribute');
    expect(boardDocumentSchema.isValidSync(upgraded)).toBe(true);
  });

  it('refuses what is no board, and a later version', () => {
    expect(() => upgradeBoard({ readouts: [] })).toThrow(/version is missing/);
    expect(() => upgradeBoard(null)).toThrow(/version is missing/);
    expect(() => upgradeBoard({ version: 9 })).toThrow(/Version 9/);
  });
});

describe('joinScopes', () => {
  // A tree of 12: the parent of n is n >> 1.
  const parentOf = (id: string): string | null => (Number(id) <= 1 ? null : String(Number(id) >> 1));
  const pathOf = (id: string): string[] => [...(parentOf(id) ? pathOf(parentOf(id)!) : []), id];
  const inside = (id: string, { assetIds }: Scope): boolean => {
    if (!assetIds) return true;
    for (let at: string | null = id; at; at = parentOf(at)) if (assetIds.includes(at)) return true;
    return false;
  };

  it('holds exactly the assets that lie in both, for any two scopes of a tree', () => {
    const someIds = fc.option(fc.uniqueArray(fc.integer({ min: 1, max: 12 }).map(String), { maxLength: 5 }), {
      nil: null,
    });
    fc.assert(
      fc.property(someIds, someIds, (a, b) => {
        const [one, two] = [a, b].map((assetIds) => ({ assetIds, attributes: [] }));
        const joined = joinScopes(one, two, pathOf);
        for (let n = 1; n <= 12; n++) {
          const id = String(n);
          expect(inside(id, joined)).toBe(inside(id, one) && inside(id, two));
        }
      }),
    );
  });

  it('puts conditions on attributes and hours together', () => {
    const maker = { name: 'Maker', values: ['Weld'] };
    const kind = { name: 'Line', values: [2] };
    expect(
      joinScopes({ assetIds: null, attributes: [maker] }, { assetIds: null, attributes: [kind] }, pathOf),
    ).toEqual({
      assetIds: null,
      attributes: [maker, kind],
    });
    const night: HoursFilter = { kind: 'clock', from: '22:00', to: '06:00' };
    const weekend: HoursFilter = { kind: 'weekdays', days: [6, 7] };
    expect(joinHours(night, null)).toBe(night);
    expect(joinHours(night, weekend)).toEqual({ kind: 'all', of: [night, weekend] });
  });
});

describe('titles and footnotes', () => {
  const metrics = new Map(
    [
      metric('1', 'Gas used', 'Dryer 1'),
      metric('2', 'Dried weight', 'Dryer 1'),
      metric('3', 'Gas used', 'Dryer 2'),
    ].map((each) => [each.id, each]),
  );
  const title = (part: Partial<Readout>): string =>
    automaticTitle(readout('r', part), (id) => metrics.get(id));

  it.each<[Partial<Readout>, string]>([
    [{}, 'Dryer 1 gas used'],
    [{ measures: [{ ...measure('1'), summary: 'max' }] }, 'Dryer 1 gas used, highest'],
    [{ measures: [measure('1', '2')] }, 'Gas used per dried weight'],
    [{ measures: [measure('1'), measure('3')] }, 'Gas used, Dryer 1 and Dryer 2'],
    [{ measures: [measure('1'), measure('2')] }, 'Dryer 1: gas used and dried weight'],
    [{ groupBy: { kind: 'plant' } }, 'Gas used, by plant'],
    [
      { groupBy: { kind: 'attribute', name: 'Maker' }, measures: [measure('1', '2')] },
      'Gas used per dried weight, by Maker',
    ],
    [{ measures: [measure('99')] }, 'Removed metric'],
    [{ form: 'note', measures: [] }, 'Note'],
  ])('%j is called "%s"', (part, expected) => {
    expect(title(part)).toBe(expected);
  });

  it('state the subset, and nothing where nothing is left out', () => {
    const name = (id: string): string | undefined => ({ '4': 'Ironer hall' })[id];
    expect(automaticFootnote(readout('r'), name)).toBeNull();
    expect(
      automaticFootnote(
        readout('r', {
          scope: { assetIds: ['4', '9'], attributes: [{ name: 'Maker', values: ['Weld', 'Acre'] }] },
          hours: {
            kind: 'any',
            of: [
              { kind: 'clock', from: '22:00', to: '06:00' },
              { kind: 'weekdays', days: [6] },
            ],
          },
          groupBy: { kind: 'attribute', name: 'Line' },
          keepBlanks: false,
        }),
        name,
      ),
    ).toBe(
      'Only Ironer hall, a removed asset; Maker Weld or Acre; 22:00 to 06:00 or on Saturdays; those that have Line',
    );
  });
});

describe('changeForm', () => {
  it('keeps every choice on the way to any form and back', () => {
    const choices = fc.record({
      title: fc.option(fc.string(), { nil: null }),
      decimals: fc.option(fc.nat(4), { nil: null }),
      cumulative: fc.boolean(),
      bucket: fc.constantFrom('hour' as const, 'day' as const, null),
      compare: fc.constantFrom('before' as const, 'lastYear' as const, 'none' as const),
    });
    fc.assert(
      fc.property(
        choices,
        fc.constantFrom(...READOUT_FORMS),
        fc.constantFrom(...READOUT_FORMS),
        (part, from, to) => {
          const before = readout('r', { ...part, form: from, groupBy: { kind: 'asset' } });
          expect(changeForm(changeForm(before, to), from, before)).toEqual(before);
        },
      ),
    );
  });

  it('groups a single metric that becomes a ring: one share alone is no whole', () => {
    expect(changeForm(readout('r'), 'ring').groupBy).toEqual({ kind: 'asset' });
  });
});

describe('a board as a file', () => {
  const here = [metric('1', 'Gas used', 'Dryer 1'), metric('2', 'Dried weight', 'Dryer 1')];
  const document = board(
    readout('r1', { measures: [measure('1', '2')] }),
    readout('r2', { measures: [measure('2')], scope: { assetIds: ['4'], attributes: [] } }),
    readout('n', { form: 'note', measures: [], text: '# Hello' }),
  );

  it('comes back as it was written', () => {
    const file = readBoardFile(writeBoardFile('Dryers', document, here));
    expect(file.title).toBe('Dryers');
    expect(file.document).toEqual(document);
    expect(file.metrics.map(({ key }) => key)).toEqual(['key.1', 'key.2']);
  });

  it('finds its metrics elsewhere by key, or by name, asset and unit; what is missing leaves its readouts out', () => {
    const file = readBoardFile(writeBoardFile('Dryers', document, here));
    const there = [
      metric('50', 'Gas used', 'Dryer 1', { key: 'other' }),
      metric('60', 'Dried weight', 'Dryer 9', { key: 'key.2' }),
    ];
    const to = matchMetrics(file, there);
    expect([...to]).toEqual([
      ['1', '50'],
      ['2', '60'],
    ]);
    const nowhere = { assets: new Map(), indicators: new Map(), boards: new Map() };
    const mapped = takeBoard(file, { ...nowhere, metrics: to });
    expect(mapped.left).toBe(0);
    expect(mapped.document.readouts[0].measures[0]).toMatchObject({
      metricId: '50',
      per: { metricId: '60' },
    });
    // Assets of the other place mean nothing here, and that is told.
    expect(mapped.document.readouts[1].scope).toEqual({ assetIds: null, attributes: [] });
    expect(mapped.told).toEqual([
      '"Readout 2" no longer names an asset without a name, and is no longer narrowed to assets: not here.',
    ]);
    const partly = takeBoard(file, { ...nowhere, metrics: new Map([['2', '60']]) });
    expect(partly.left).toBe(1);
    expect(partly.told[0]).toBe('"Readout 1" is left out: a metric of it is not here.');
    expect(partly.document.readouts.map(({ id }) => id)).toEqual(['r2', 'n']);
  });

  const rich = {
    ...board(
      readout('r1', { title: 'Gas', indicatorId: '8', link: '/boards/3' }),
      readout('r2', {
        title: 'Weight',
        measures: [measure('2')],
        scope: { assetIds: ['4'], attributes: [] },
      }),
    ),
    scope: { assetIds: ['4', '5'], attributes: [] },
  };
  const places = {
    assets: [
      { id: '4', title: 'Foundry Lane / Dryers' },
      { id: '5', title: 'Foundry Lane / Boiler' },
    ],
    indicators: [{ id: '8', name: 'Gas per kg', place: 'Foundry Lane / Dryers' }],
    boards: [{ id: '3', title: 'Ironers' }],
  };
  const all = new Map([
    ['1', '1'],
    ['2', '2'],
  ]);

  it('changes no meaning on the server it comes from: scope, indicator and link are found again', () => {
    expect(placesOfBoard(rich)).toEqual({ assets: ['4', '5'], indicators: ['8'], boards: ['3'] });
    const file = readBoardFile(writeBoardFile('Rich', rich, here, places));
    // Another board of the same title came meanwhile.
    const boards = [{ id: '9', title: 'Ironers' }, ...places.boards];
    const taken = takeBoard(file, { metrics: all, ...matchPlaces(file, { ...places, boards }) });
    expect(taken).toEqual({ document: file.document, left: 0, told: [] });
  });

  it('elsewhere takes what bears the same names, and tells what was dropped or frozen', () => {
    const file = readBoardFile(writeBoardFile('Rich', rich, here, places));
    const there = {
      assets: [{ id: '40', title: 'Foundry Lane / Dryers' }],
      indicators: [{ id: '80', name: 'Gas per kg', place: 'Upper Weir / Dryers' }],
      boards: [],
    };
    const { document: made, told } = takeBoard(file, { metrics: all, ...matchPlaces(file, there) });
    expect(made.scope.assetIds).toEqual(['40']);
    expect(made.readouts[0]).toMatchObject({ indicatorId: null, link: null });
    expect(made.readouts[1].scope?.assetIds).toEqual(['40']);
    expect(told).toEqual([
      'The scope of the board no longer names Foundry Lane / Boiler: not here.',
      '"Gas" keeps what Gas per kg, Foundry Lane / Dryers said when the file was written, and follows it no longer: not here.',
      '"Gas" no longer leads to Ironers: not here.',
    ]);
  });

  it('takes the asset whose parts are shown along, and shows single assets where it is not there', () => {
    const parted = {
      ...rich,
      readouts: rich.readouts.map((each) => ({ ...each, groupBy: { kind: 'part' as const, assetId: '4' } })),
    };
    expect(placesOfBoard(parted).assets).toContain('4');
    const file = readBoardFile(writeBoardFile('Rich', parted, here, places));
    const found = (assets: ReadonlyMap<string, string>) =>
      takeBoard(file, { metrics: all, assets, indicators: new Map(), boards: new Map() });
    expect(found(new Map([['4', '40']])).document.readouts[0].groupBy).toEqual({
      kind: 'part',
      assetId: '40',
    });
    const { document: made, told } = found(new Map());
    expect(made.readouts[0].groupBy).toEqual({ kind: 'asset' });
    expect(told).toContain('"Gas" is grouped by asset: the asset whose parts it showed is not here.');
  });

  const broken = (change: (file: ReturnType<typeof JSON.parse>) => void): string => {
    const file = JSON.parse(writeBoardFile('Dryers', document, here));
    change(file);
    return JSON.stringify(file);
  };

  it.each<[string, string, RegExp]>([
    ['other JSON', '{"a": 1}', /not a board file/],
    ['broken JSON', '{\n "kind": oops', /not valid JSON/],
    ['no title', broken((file) => void delete file.title), /^title: /],
    [
      'an unknown form',
      broken((file) => void (file.document.readouts[1].form = 'wheel')),
      /^document\.readouts\[1\]\.form/,
    ],
    ['a bad window', broken((file) => void (file.document.window = { kind: 'ever' })), /^document\.window/],
    ['two of one id', broken((file) => void (file.document.readouts[1].id = 'r1')), /the same id/],
    ['a metric it does not explain', broken((file) => void file.metrics.pop()), /does not say what it is/],
    [
      'ends the wrong way round',
      broken((file) => void (file.document.readouts[0].scale.ends = [5, 1])),
      /low end/,
    ],
    ['a later version', broken((file) => void (file.document.version = 4)), /Version 4/],
  ])('is refused with the place for %s', (_name, text, message) => {
    expect(() => readBoardFile(text)).toThrow(message);
  });
});

describe('startBoard', () => {
  const of = (id: string, assetId: string, name: string, kind: Metric['kind'], part: object = {}): Metric =>
    metric(id, name, assetId, { assetId, kind, ...part });
  const alike: MetricsAlike[] = [
    { level: 0, metric: of('1', 'p', 'Steam', 'level'), assetIds: ['p'] },
    { level: 1, metric: of('2', 'd1', 'Gas used', 'amount'), assetIds: ['d1', 'd2'] },
    // Computed from others: it would be shown twice.
    {
      level: 1,
      metric: of('5', 'd1', 'Gas a piece', 'amount', { origin: 'derived' }),
      assetIds: ['d1', 'd2'],
    },
    { level: 2, metric: of('4', 'm', 'Speed', 'level'), assetIds: ['m'] },
  ];

  it.each([
    [0, ['gauge', 'trend']],
    [1, ['gauge', 'trend', 'straight']],
    [2, ['gauge', 'trend', 'straight', 'figure']],
  ])('to depth %p has %j', (depth, forms) => {
    const made = startBoard(alike.filter(({ level }) => level <= depth));
    expect(made.readouts.map(({ form }) => form)).toEqual(forms);
    expect(
      boardDocumentSchema.isValidSync({
        ...made,
        readouts: made.readouts.map((each) => ({ ...each, scope: null })),
      }),
    ).toBe(true);
  });
});

describe('a window in an address', () => {
  it('comes back as it was, whatever it is', () => {
    const unit = fc.constantFrom(...WINDOW_UNITS);
    const count = fc.integer({ min: 1, max: 1000 });
    const day = fc
      .date({ min: new Date('1950-01-01'), max: new Date('2090-01-01'), noInvalidDate: true })
      .map((d) => d.toISOString().slice(0, 16));
    const any = fc.oneof(
      fc.record({ kind: fc.constant('rolling' as const), count, unit }),
      fc.record({
        kind: fc.constantFrom('periods' as const, 'next' as const),
        count,
        unit,
        current: fc.boolean(),
      }),
      fc.record({ kind: fc.constant('toDate' as const), unit }),
      fc.record({ kind: fc.constant('absolute' as const), start: day, end: day }),
    );
    fc.assert(fc.property(any, (window) => expect(readWindowText(windowText(window))).toEqual(window)));
  });

  it.each([
    '',
    'last',
    'last:0:day',
    'last:5:fortnight',
    'periods:7:day:soon',
    'to-date:day:2',
    '2026-11-19/never',
    'a/b/c',
    'next:1.5:day',
  ])('is not read from "%s"', (text) => expect(readWindowText(text)).toBeNull());
});
