import { screen, waitFor } from '@testing-library/react';
import { Refused, renderScreen, type Answers, type SentRequest } from '../../testing/renderScreen';
import { DerivedEditorScreen } from './DerivedEditorScreen';
// Imported here, so that no query waits for the script the screen loads lazily.
import '../boardScreens';

jest.setTimeout(30_000);
const mockNavigate = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ navigate: mockNavigate }) }));

const NOW = Date.UTC(2026, 10, 19, 6, 40);
const HOUR = 3_600_000;
const METRICS = [
  { id: '5', name: 'Gas', unit: 'm³', kind: 'amount', assetId: '2', assetName: 'Dryer 1' },
  { id: '6', name: 'Washed weight', unit: 'kg', kind: 'amount', assetId: '3', assetName: 'Washer 1' },
  { id: '7', name: 'Gas per kg', unit: 'm³/kg', origin: 'derived', assetId: '1', assetName: 'Quayside' },
];
const ASSETS = [
  { id: '1', parentId: null, name: 'Quayside', attributes: { 'Floor area (m²)': 420 } },
  { id: '2', parentId: '1', name: 'Dryer 1' },
  { id: '3', parentId: '1', name: 'Washer 1' },
];
const preview = (part: object = {}): object => ({
  unit: 'm³/kg',
  foundUnit: 'm³/kg',
  zone: 'UTC',
  window: { start: NOW - 24 * HOUR, end: NOW },
  t: [NOW - 2 * HOUR, NOW - HOUR],
  v: [0.4, null],
  value: 0.42,
  coverage: 1,
  ...part,
});
const bindings = {
  gas: { kind: 'metric', metricId: '5', summary: null },
  weight: { kind: 'metric', metricId: '6', summary: null },
};

function show(metricId: string | null, answers: Answers = {}) {
  return renderScreen(<DerivedEditorScreen metricId={metricId} assetId="1" />, {
    'GET /api/metrics': METRICS,
    'GET /api/assets': ASSETS,
    'GET /api/factors': [
      { id: '4', name: 'CO2 of gas', unit: 'kg/m³', source: '', values: [{ from: '2026-01-01', value: 2 }] },
    ],
    'GET /api/derived/7': { metricId: '7', expression: 'gas / weight', bindings, way: 'totals' },
    'POST /api/derived/preview': preview(),
    'POST /api/derived': { ...METRICS[2] },
    'PUT /api/derived/7': { ...METRICS[2] },
    ...answers,
  });
}
const lastSent = (sent: readonly SentRequest[], path: string): unknown =>
  sent.filter((each) => each.path === path && each.method !== 'GET').at(-1)?.body;

beforeEach(() => {
  jest.spyOn(Date, 'now').mockReturnValue(NOW);
  mockNavigate.mockClear();
});
afterEach(() => jest.restoreAllMocks());

describe('the editor of a derived metric', () => {
  it('names what is picked, shows the result as it is written, and saves with the unit that follows', async () => {
    const { person, sent } = show(null);
    await person.click(await screen.findByRole('button', { name: 'Add a metric or number' }));
    await person.click(await screen.findByRole('radio', { name: /^Gas, Dryer 1/ }));
    const field = screen.getByRole('textbox', { name: 'Expression' });
    expect((field as HTMLTextAreaElement).value).toBe('gas');
    await person.type(field, ' / ');
    await person.click(screen.getByRole('button', { name: 'Add a metric or number' }));
    await person.click(await screen.findByRole('radio', { name: /^Washed weight, Washer 1/ }));
    expect((field as HTMLTextAreaElement).value).toBe('gas / washed_weight');
    expect(await screen.findAllByText(/0\.42/)).not.toHaveLength(0);
    await person.type(await screen.findByLabelText('Name of the metric'), 'Gas per kg');
    await person.click(screen.getByRole('button', { name: 'Save derived metric' }));
    await waitFor(() => expect(mockNavigate).toHaveBeenCalledWith('/data/metrics/7'));
    expect(lastSent(sent, '/api/derived')).toEqual({
      assetId: '1',
      name: 'Gas per kg',
      unit: 'm³/kg',
      kind: 'level',
      decimals: 2,
      expression: 'gas / washed_weight',
      bindings: { gas: bindings.gas, washed_weight: bindings.weight },
      way: 'totals',
    });
  });

  it('begins with the expression as it is, and saves the change under its id', async () => {
    const { person, sent } = show('7');
    const field = await screen.findByRole('textbox', { name: 'Expression' });
    expect((field as HTMLTextAreaElement).value).toBe('gas / weight');
    expect(await screen.findByText('Gas, Dryer 1 (m³)')).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'sample by sample' }));
    expect(screen.getByText(/a mean of ratios would weigh an idle minute like a busy one/)).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'an amount' }));
    await person.click(screen.getByRole('button', { name: 'Save derived metric' }));
    await waitFor(() =>
      expect(lastSent(sent, '/api/derived/7')).toMatchObject({ way: 'samples', kind: 'amount' }),
    );
  });

  it('says what is wrong where the server refuses it, and cannot be saved then', async () => {
    const { person } = show('7', {
      'POST /api/derived/preview': new Refused(422, {
        code: 'BAD_INPUT',
        message: 'There is no name "wieght". Did you mean weight?',
        path: 'expression',
      }),
    });
    await person.type(await screen.findByRole('textbox', { name: 'Expression' }), '1');
    expect(await screen.findByText('There is no name "wieght". Did you mean weight?')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Save derived metric' }).getAttribute('aria-disabled')).toBe(
      'true',
    );
  });

  it('offers functions and names for the word that is being typed', async () => {
    const { person } = show('7');
    const field = await screen.findByRole('textbox', { name: 'Expression' });
    await person.clear(field);
    await person.type(field, 'rol');
    await person.click(await screen.findByRole('button', { name: /^rolling\(/ }));
    expect((field as HTMLTextAreaElement).value).toBe('rolling(');
    await person.type(field, 'wei');
    await person.click(screen.getByRole('button', { name: 'weight' }));
    expect((field as HTMLTextAreaElement).value).toBe('rolling(weight');
  });

  it('binds a name that assets below have in common, summed', async () => {
    const gas = (id: string, assetId: string) => ({
      ...METRICS[0],
      id,
      assetId,
      assetName: `Asset ${assetId}`,
    });
    const { person, sent } = show(null, { 'GET /api/metrics': [gas('5', '2'), gas('6', '3'), METRICS[2]] });
    await person.click(await screen.findByRole('button', { name: 'Add a metric or number' }));
    await person.click(await screen.findByRole('radio', { name: 'the sum of all below' }));
    await person.click(await screen.findByRole('radio', { name: /^Gas, 2 assets|^Gas/ }));
    await waitFor(() =>
      expect(lastSent(sent, '/api/derived/preview')).toMatchObject({
        bindings: { gas: { kind: 'children', assetId: '1', metricName: 'Gas', summary: null } },
      }),
    );
  });

  it('looks for metrics on and below the asset, then anywhere', async () => {
    const far = {
      ...METRICS[0],
      id: '9',
      assetId: '8',
      assetName: 'Boiler',
      plantId: '7',
      plantName: 'Weir',
    };
    const { person } = show(null, { 'GET /api/metrics': [...METRICS, far] });
    await person.click(await screen.findByRole('button', { name: 'Add a metric or number' }));
    expect(await screen.findByRole('radio', { name: /^Gas, Dryer 1/ })).toBeTruthy();
    expect(screen.queryByRole('radio', { name: /^Gas, Boiler/ })).toBeNull();
    await person.click(screen.getByRole('radio', { name: 'anywhere' }));
    expect(await screen.findByRole('radio', { name: /^Gas, Boiler/ })).toBeTruthy();
  });

  it('binds attributes and factors, and drops what is not used', async () => {
    const { person } = show(null);
    await person.click(await screen.findByRole('button', { name: 'Add a metric or number' }));
    await person.click(await screen.findByRole('radio', { name: 'an attribute' }));
    await person.click(await screen.findByRole('radio', { name: /^Dryer 1/ }));
    expect(await screen.findByText('This asset has no attribute that is a number.')).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: /^Quayside/ }));
    await person.click(await screen.findByRole('radio', { name: /^Floor area/ }));
    const field = screen.getByRole('textbox', { name: 'Expression' });
    expect((field as HTMLTextAreaElement).value).toBe('floor_area');
    await person.click(screen.getByRole('button', { name: 'Add a metric or number' }));
    await person.click(await screen.findByRole('radio', { name: 'a factor' }));
    await person.click(await screen.findByRole('radio', { name: /^CO2 of gas/ }));
    expect(screen.getByRole('button', { name: 'Remove floor_area' })).toBeTruthy();
    await person.click(screen.getByRole('button', { name: /^Remove co2_of_gas/i }));
    expect(screen.queryByRole('button', { name: /^Remove co2_of_gas/i })).toBeNull();
  });
});
