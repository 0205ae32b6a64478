import { recognise, type LayoutCorrection } from '@vivid-beacon/core/src/intakeFiles';
import type { IntakeAsk, IntakeTold } from '../workers/intakeMessages';
import { createIntakeStore, type Mapping } from './intakeStore';

const TEXT = ['Time;Gas (kWh);Steam (t/h)', '2026-11-19 06:00;1,5;2,5', '2026-11-19 07:00;1,7;0,9'].join(
  '\n',
);
const CSV = new File([TEXT], 'gas.csv');
// The stand-in for a browser has no bytes of files.
CSV.slice = () => ({ arrayBuffer: async () => new ArrayBuffer(4) }) as Blob;

/** A thread that recognises for real and reads nothing. */
function makeStore(recall: (shape: string) => Promise<Mapping | null> = async () => null) {
  const asked: IntakeAsk[] = [];
  const store = createIntakeStore({
    recall,
    makeWorker: () => {
      const worker = {
        onmessage: null as ((event: MessageEvent<IntakeTold>) => void) | null,
        terminate: () => undefined,
        postMessage: (ask: IntakeAsk) => {
          asked.push(ask);
          if (ask.kind !== 'look') return;
          const recognised = recognise(TEXT, ask.correct);
          const shape = recognised.columns.map(({ heading }) => heading).join();
          const told = { kind: 'looked', shape, recognised, encoding: 'utf-8', sheet: null, sheets: [] };
          queueMicrotask(() => worker.onmessage?.({ data: told as unknown as IntakeTold } as MessageEvent));
        },
      };
      return worker;
    },
  });
  return { store, asked };
}
const settle = () => new Promise((resolve) => setTimeout(resolve, 20));

async function chosen(recall?: (shape: string) => Promise<Mapping | null>) {
  const made = makeStore(recall);
  made.store.getState().actions.choose([CSV]);
  await settle();
  const correct = async (part: LayoutCorrection): Promise<void> => {
    made.store.getState().actions.correctLayout(part);
    await settle();
  };
  return { ...made, correct };
}

describe('intake', () => {
  it('proposes a new metric for every column, an amount where the unit says so', async () => {
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

  it('is remembered by the shape that is recognised before anything is corrected', async () => {
    const { store, correct } = await chosen();
    const shape = store.getState().shape;
    await correct({ headingRows: 0, preambleRows: 1 });
    expect(store.getState().shape).toBe(shape);
    const mapping: Mapping = {
      layout: store.getState().look!.recognised.layout,
      plans: { 1: { to: 'existing', metricId: '3' }, 2: { to: 'nothing' } },
      zone: 'Europe/London',
    };
    const next = await chosen(async (asked) => (asked === shape ? mapping : null));
    expect(next.store.getState()).toMatchObject({ remembered: true, step: 'check', plans: mapping.plans });
    expect(next.store.getState().look!.recognised.layout.headingRows).toBe(0);
  });

  it('reads on as new when what was remembered cannot be asked', async () => {
    const { store } = await chosen(() => Promise.reject(new Error('offline')));
    expect(store.getState()).toMatchObject({ remembered: false, step: 'check' });
  });
});
