import type { LayoutCorrection } from '@vivid-beacon/core/src/intakeFiles';
import { lookAtText as lookOf, standInIntake } from '../testing/standInIntake';
import { shapeOf } from '../workers/shapeOf';
import { assetColumnOf, orderOf, proposals, type ChosenAsset } from './intakePlans';
import type { Mapping } from './intakeStore';

const TEXT = ['Time;Gas (kWh);Steam (t/h)', '2026-11-19 06:00;1,5;2,5', '2026-11-19 07:00;1,7;0,9'].join(
  '\n',
);
const NAMED = [
  'Time;Machine;Gas (kWh);Steam (t/h)',
  ...['06:00', '07:00'].flatMap((clock) => [
    `2026-11-19 ${clock};Dryer 1;1,5;2,5`,
    `2026-11-19 ${clock};Dryer 2;1,7;0,9`,
  ]),
].join('\n');
/** The chosen file, with shortcuts to correct its layout and to import it. */
async function chosen(options: Parameters<typeof standInIntake>[1] = {}) {
  const made = await standInIntake(TEXT, options);
  const correct = async (part: LayoutCorrection): Promise<void> => {
    made.store.getState().actions.correctLayout(part);
    await made.settle();
  };
  const bringIn = async (): Promise<void> => {
    const { look, plans, actions } = made.store.getState();
    actions.read({ ...orderOf(look!, plans, ASSET, fed), formToken: 'x' });
    await made.settle();
  };
  return { ...made, correct, bringIn };
}

const ASSET: ChosenAsset = { id: null, name: 'Quayside', zone: 'Europe/London', namedBy: null };

const fed = () => ({ kind: 'level', intervalMs: 60_000, stamped: 'start', earliest: null }) as const;

describe('intake', () => {
  it('proposes a new metric for every series, an amount where the unit says so', async () => {
    const { store } = await chosen();
    expect(store.getState().plans).toEqual({
      1: { to: 'new', name: 'Gas', unit: 'kWh', kind: 'amount' },
      2: { to: 'new', name: 'Steam', unit: 't/h', kind: 'level' },
    });
  });

  it('lets what nobody has touched follow a corrected layout, and keeps what somebody has chosen', async () => {
    const { store, correct } = await chosen();
    store.getState().actions.plan('2', { to: 'existing', metricId: '7' });
    await correct({ headingRows: 0, preambleRows: 1 });
    const { plans } = store.getState();
    expect(plans[1]).toMatchObject({ to: 'new' });
    expect(plans[1]).not.toMatchObject({ name: 'Gas' });
    expect(plans[2]).toEqual({ to: 'existing', metricId: '7' });
    await correct({ headingRows: 1, preambleRows: 0 });
    expect(store.getState().plans[1]).toMatchObject({ name: 'Gas' });
  });

  it('lets one column date the rows: another that is given the time takes its place', async () => {
    const { store, settle } = await chosen();
    store.getState().actions.setPart(1, 'time');
    await settle();
    const { look } = store.getState();
    expect(look!.recognised.columns.map(({ part }) => part)).toEqual(['leftOut', 'time', 'value']);
  });

  it('is remembered by the shape that is recognised before anything is corrected, with the file it came from', async () => {
    const { store, correct } = await chosen();
    const shape = store.getState().shape;
    await correct({ headingRows: 0, preambleRows: 1 });
    expect(store.getState().shape).toBe(shape);
    const mapping: Mapping = {
      correct: { repeatedHour: 'first' },
      plans: { 1: { to: 'existing', metricId: '3' }, 2: { to: 'nothing' } },
      zone: 'Europe/London',
      fileName: 'last.csv',
      usedAt: 5,
    };
    const next = await chosen({ recall: async (asked) => (asked === shape ? mapping : null) });
    expect(next.store.getState()).toMatchObject({
      remembered: { fileName: 'last.csv', usedAt: 5 },
      step: 'check',
      plans: mapping.plans,
      zone: 'Europe/London',
    });
    expect(next.store.getState().look!.recognised.layout.repeatedHour).toBe('first');
  });

  it('is not remembered by headings that any file may have', async () => {
    const generic = await lookOf('Time;Value\n2026-11-19 06:00;1,5\n2026-11-19 07:00;1,7');
    expect(shapeOf(generic)).toBeNull();
    const a = await lookOf('time;tag;value\n2026-01-01;p;1\n2026-01-01;q;2\n2026-01-02;p;1\n2026-01-02;q;2');
    const b = await lookOf('time;tag;value\n2026-01-01;p;1\n2026-01-01;r;2\n2026-01-02;p;1\n2026-01-02;r;2');
    expect(shapeOf(a)).not.toBeNull();
    expect(shapeOf(a)).not.toBe(shapeOf(b));
  });

  it('reads on as new when what was remembered cannot be asked', async () => {
    const { store } = await chosen({ recall: () => Promise.reject(new Error('offline')) });
    expect(store.getState()).toMatchObject({ remembered: null, step: 'check' });
  });

  it('stores at once what changes nothing, and asks before stored values change', async () => {
    const calm = await chosen();
    await calm.bringIn();
    expect(calm.store.getState().step).toBe('done');
    expect(calm.finished[0]).toMatchObject(['9', { batches: 1, corrections: 'refuse' }]);
    const effect = {
      metricId: '3',
      name: 'Gas',
      assetName: 'A',
      plantName: 'P',
      samples: 2,
      unchanged: 1,
      corrected: 1,
    };
    const asks = await chosen({ effects: [effect] });
    await asks.bringIn();
    expect(asks.store.getState().step).toBe('confirm');
    expect(asks.finished).toEqual([]);
    asks.store.getState().actions.finish('keep');
    await asks.settle();
    expect(asks.finished[0][1].corrections).toBe('keep');
  });

  it('remembers neither the one time of all rows nor what held where values met', async () => {
    const { store, correct, bringIn, finished } = await chosen();
    await correct({ fixedTime: 5, collisions: 'mean', preambleRows: 0, decimal: ',' });
    await bringIn();
    expect(store.getState().step).toBe('done');
    expect(finished[0][1].remember!.correct).toEqual({ decimal: ',' });
  });

  it('takes back what was sent when it is cancelled, or when it cannot be stored', async () => {
    const effect = {
      metricId: '3',
      name: 'Gas',
      assetName: 'A',
      plantName: 'P',
      samples: 2,
      unchanged: 1,
      corrected: 1,
    };
    const cancelled = await chosen({ effects: [effect] });
    await cancelled.bringIn();
    cancelled.store.getState().actions.cancel();
    expect(cancelled.takenBack).toEqual(['9']);
    const failed = await chosen({ finish: () => Promise.reject(new Error('name is taken')) });
    await failed.bringIn();
    expect(failed.takenBack).toEqual(['9']);
    expect(failed.store.getState()).toMatchObject({ step: 'check', error: 'name is taken' });
  });

  it('says what a file is that holds no table', async () => {
    const { store } = await chosen();
    const picture = new File(['x'], 'a.png');
    picture.slice = () =>
      ({ arrayBuffer: async () => Uint8Array.from([0x89, 0x50, 0x4e, 0x47]).buffer }) as Blob;
    store.getState().actions.choose([picture]);
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(store.getState()).toMatchObject({
      looking: false,
      error: expect.stringContaining('a picture (PNG)'),
    });
  });
});

describe('what is made with a file', () => {
  it('makes an asset for each word of a column that names machines, under the chosen one', async () => {
    const look = await lookOf(NAMED);
    const namedBy = assetColumnOf(look);
    expect(namedBy).toBe(1);
    const plans = proposals(look, namedBy);
    const { made, targets, remembered } = orderOf(look, plans, { ...ASSET, namedBy }, fed);
    expect(made.assets.map(({ name, parent }) => [name, parent])).toEqual([
      ['Quayside', null],
      ['Dryer 1', 0],
      ['Dryer 2', 0],
    ]);
    expect(made.metrics.map(({ name, asset, intervalMs }) => [name, asset, intervalMs])).toEqual([
      ['Gas', 1, 3_600_000],
      ['Steam', 1, 3_600_000],
      ['Gas', 2, 3_600_000],
      ['Steam', 2, 3_600_000],
    ]);
    expect(Object.values(targets).map(({ metricId }) => metricId)).toEqual([
      'new-0',
      'new-1',
      'new-2',
      'new-3',
    ]);
    expect(Object.values(remembered)[0]).toEqual({ to: 'existing', metricId: 'new-0' });
  });

  it('keeps metrics that are there, and what they do not keep any more out', async () => {
    const look = await lookOf(TEXT);
    const plans = { 1: { to: 'existing', metricId: '5' }, 2: { to: 'nothing' } } as const;
    const { made, targets } = orderOf(look, plans, { ...ASSET, name: '' }, () => ({
      kind: 'amount',
      intervalMs: 900_000,
      stamped: 'end',
      earliest: 77,
    }));
    // Its metric says that times stand for the end of an interval.
    expect(targets).toEqual({ 1: { metricId: '5', earliest: 77, shiftMs: 900_000 } });
    expect(made).toEqual({ assets: [], metrics: [] });
  });
});
