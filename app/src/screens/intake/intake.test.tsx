import { screen, waitFor, within } from '@testing-library/react';
import type { Asset, Intake, Metric } from '@vivid-beacon/core';
import { balanceText, emptyBalance, type ReportedLine } from '@vivid-beacon/core/src/intakeFiles';
import { renderScreen } from '../../testing/renderScreen';
import { lookAtText, standInIntake } from '../../testing/standInIntake';
import { IntakeCheck } from './IntakeCheck';
import { IntakeConfirm } from './IntakeConfirm';
import { IntakeResult } from './IntakeResult';
import { signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
jest.mock('expo-router', () => ({ useRouter: () => ({ navigate: jest.fn() }) }));

const SESSION = {
  'GET /api/session': signedIn('analyst'),
};
const PLANT: Asset = {
  id: '1',
  parentId: null,
  name: 'Quayside',
  kind: 'plant',
  zone: 'Europe/London',
  ownZone: 'Europe/London',
  plantId: '1',
  path: ['1'],
  title: 'Quayside',
  attributes: {},
};
const METRICS = [
  {
    id: '7',
    name: 'Gas',
    assetName: 'Dryer 1',
    plantName: 'Quayside',
    unit: 'kWh',
    origin: 'samples',
    zone: 'Europe/London',
  },
] as unknown as Metric[];

async function check(text: string) {
  const made = await standInIntake(text);
  const drawn = renderScreen(<IntakeCheck store={made.store} />, {
    ...SESSION,
    'GET /api/assets': [PLANT],
    'GET /api/metrics': METRICS,
  });
  return { ...made, ...drawn };
}
const bringIn = (): HTMLElement => screen.getByRole('button', { name: 'Import' });
const isOff = (element: HTMLElement): boolean => element.getAttribute('aria-disabled') === 'true';

const AMBIGUOUS = 'day;flow\n03/04/2026;1\n05/06/2026;2';
const PLAIN = 'Time;Gas (kWh);Note\n2026-11-19 06:00;1,5;ok\nsoon;2;\n2026-11-19 08:00;3;ok';

describe('IntakeCheck', () => {
  it('tells what becomes of every line, with four numbers that add up', async () => {
    await check(PLAIN);
    expect(screen.getByLabelText('4 lines: 2 taken, 1 refused, 0 repeated, 1 left out')).toBeTruthy();
    expect(screen.getByText('Line 3: not a time in the chosen format')).toBeTruthy();
    expect(screen.getByText('time: “soon”')).toBeTruthy();
  });

  it('lists every column with what it is, and lets it be given another part', async () => {
    const { person, settle, store } = await check(PLAIN);
    const columns = screen.getByRole('region', { name: 'Columns' });
    expect(within(columns).getByText(/not numbers · “ok” · 2 cells, 1 blank/)).toBeTruthy();
    await person.click(within(columns).getByRole('button', { name: /^Column Note: Left out/ }));
    const tray = screen.getByRole('dialog', { name: 'Note' });
    await person.click(within(tray).getByRole('radio', { name: /^Name/ }));
    await settle();
    expect(store.getState().look!.recognised.layout.nameColumns).toEqual([2]);
  });

  it('takes nothing before a question is answered, and shows what each answer means', async () => {
    const { person, settle } = await check(AMBIGUOUS);
    expect(isOff(bringIn())).toBe(true);
    expect(screen.getByText('One question above is open.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'month first: 03/04/2026 is Wed 4 Mar 2026' }));
    await settle();
    await waitFor(() => expect(screen.queryByRole('region', { name: 'Answer these first' })).toBeNull());
    expect(screen.getByText('Choose an asset, or name a new one.')).toBeTruthy();
    await person.type(screen.getByLabelText('Name of the asset'), 'Annex');
    await waitFor(() => expect(isOff(bringIn())).toBe(false));
  });

  it('makes a row of the file the heading when its number is pressed', async () => {
    const { person, settle, store } = await check('Time;Gas\nat;kWh used\n2026-01-01;5\n2026-01-02;6');
    await person.click(screen.getByRole('button', { name: 'Row 2: make it the heading' }));
    await settle();
    expect(store.getState().look!.recognised.layout).toMatchObject({
      preambleRows: 1,
      headings: ['at', 'kWh used'],
    });
  });

  it('shows the metric that a series feeds with its plant', async () => {
    const { person, store, settle } = await check(PLAIN);
    const series = screen.getByRole('group', { name: 'Series Gas' });
    await person.click(within(series).getByRole('radio', { name: 'Existing metric' }));
    await person.click(await within(series).findByRole('radio', { name: /Gas, Dryer 1/ }));
    expect(await within(series).findByText('Gas, Dryer 1, Quayside (kWh)')).toBeTruthy();
    // The file is read in the zone of the only metric it feeds.
    await settle();
    expect(store.getState().zone).toBe('Europe/London');
  });
});

describe('IntakeConfirm', () => {
  it('names plant, asset and metric of the values that would change', async () => {
    const onFinish = jest.fn();
    const effect = {
      metricId: '7',
      name: 'Gas',
      assetName: 'Dryer 1',
      plantName: 'Quayside',
      samples: 9,
      unchanged: 8,
      corrected: 1,
    };
    const { person } = renderScreen(
      <IntakeConfirm
        sent={{ intakeId: '3', parts: 1, balance: emptyBalance(), effects: [effect] }}
        onFinish={onFinish}
        onCancel={jest.fn()}
      />,
      {},
    );
    expect(screen.getByText('1 value would be corrected')).toBeTruthy();
    expect(screen.getByText('Quayside: 1 value of 9 in the file')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Replace 1 value' }));
    await person.click(screen.getByRole('button', { name: 'Keep what is stored, take the rest' }));
    expect(onFinish.mock.calls).toEqual([['replace'], ['keep']]);
  });
});

describe('the result of an intake', () => {
  it('counts one sample as one, and says nothing twice', async () => {
    const look = await lookAtText(PLAIN);
    const lines: ReportedLine[] = [
      { kind: 'refused', line: 3, column: 'time', value: 'soon', reason: 'not a time' },
    ];
    const intake = {
      id: '3',
      added: 1,
      unchanged: 0,
      corrected: 0,
      notes: { balance: look.balance },
      lines,
      metrics: [{ metricId: '7', name: 'Gas', assetName: 'Dryer 1', added: 1 }],
    } as unknown as Intake;
    renderScreen(<IntakeResult finished={{ intake, look }} left={0} onNext={jest.fn()} />, {});
    expect(screen.getByText('1 sample added')).toBeTruthy();
    expect(screen.getByText('1 metric fed: Gas of Dryer 1.')).toBeTruthy();
    expect(screen.getAllByText(/sample/)).toHaveLength(1);
    expect(screen.getByText('Line 3: not a time')).toBeTruthy();
  });

  it('is a file beforehand too: counts, columns and lines', async () => {
    const { balance, recognised, told, reportedCounts } = await lookAtText(PLAIN);
    const parts = { balance, columns: recognised.columns, lines: told, counts: reportedCounts };
    const rows = balanceText({ ...parts, file: 'gas.csv', before: true }).split('\r\n');
    expect(rows).toContain('gas.csv,count,,,4,lines of the file');
    expect(rows).toContain('gas.csv,column,,Note,leftOut,not numbers');
    expect(rows).toContain('gas.csv,refused,3,time,soon,not a time in the chosen format');
  });
});
