import { screen, waitFor } from '@testing-library/react';
import type { Asset, Metric } from '@vivid-beacon/core';
import { Refused, renderScreen, type SentRequest } from '../testing/renderScreen';
import { useAssetsById, useMetricsById } from '../api/catalogue';
import { AssetPick } from './AssetPick';
import { MetricPick } from './MetricPick';
import { useAssetTree } from './useAssetTree';

jest.setTimeout(30_000);

const asset = (id: string, parentId: string | null, name: string): Asset =>
  ({
    id,
    parentId,
    name,
    kind: parentId ? 'machine' : 'plant',
    plantId: '1',
    attributes: {},
  }) as unknown as Asset;
const ASSETS = [
  asset('1', null, 'Quayside'),
  asset('2', '1', 'Dryers'),
  asset('3', '2', 'Dryer 1'),
  asset('4', '2', 'Dryer 2'),
  asset('5', null, 'Upper Weir'),
];
const metric = (id: string, name: string, part: Partial<Metric> = {}): Metric =>
  ({
    id,
    name,
    assetId: '3',
    assetName: 'Dryer 1',
    plantName: 'Quayside',
    unit: 'kWh',
    kind: 'amount',
    origin: 'samples',
    ...part,
  }) as Metric;
const answers = { 'GET /api/assets': ASSETS };
const lists = (sent: readonly SentRequest[], path: string): string[] =>
  sent.filter((each) => each.path.startsWith(path)).map((each) => each.path);

/** Shows which of these metrics and assets are loaded. */
function Known({
  metrics,
  assets,
}: {
  readonly metrics: readonly string[];
  readonly assets: readonly string[];
}) {
  const known = useMetricsById(metrics);
  const places = useAssetsById(assets);
  return (
    <p>
      {[...known.byId.values(), ...places.byId.values()].map(({ name }) => name).join(', ')}
      {known.whole && places.whole ? ' – all there' : ''}
      {known.error?.message}
    </p>
  );
}

describe('metrics and assets by id', () => {
  it('come in one answer for all that ask at one moment, and those that are gone are left out', async () => {
    const { sent } = renderScreen(
      <>
        <Known metrics={['7', '8']} assets={['3']} />
        <Known metrics={['8', '9']} assets={['1', '99']} />
      </>,
      { ...answers, 'GET /api/metrics': [metric('7', 'Gas'), metric('8', 'Air'), metric('9', 'Steam')] },
    );
    expect(await screen.findByText('Gas, Air, Dryer 1 – all there')).toBeTruthy();
    expect(await screen.findByText('Air, Steam, Quayside – all there')).toBeTruthy();
    expect(lists(sent, '/api/metrics')).toEqual(['/api/metrics?ids=7%2C8%2C9&limit=500']);
    expect(lists(sent, '/api/assets')).toHaveLength(1);
  });

  it('say why they could not be had', async () => {
    renderScreen(<Known metrics={['7']} assets={[]} />, {
      'GET /api/metrics': () => new Refused(503, { code: 'NOT_READY', message: 'The database is away.' }),
    });
    expect(await screen.findByText('The database is away.')).toBeTruthy();
  });
});

describe('a pick of metrics', () => {
  const many = Array.from({ length: 60 }, (_, i) => metric(String(i + 1), `Value ${i + 1}`));

  it('shows a page, finds others by words, and gives the next page when asked', async () => {
    const chosen: string[] = [];
    const { person, sent } = renderScreen(
      <MetricPick name="Metric" chosen={null} onChoose={({ name }) => chosen.push(name)} />,
      { 'GET /api/metrics': many },
    );
    expect(await screen.findAllByRole('radio')).toHaveLength(50);
    await person.click(screen.getByRole('button', { name: 'Show more of 60' }));
    await waitFor(() => expect(screen.getAllByRole('radio')).toHaveLength(60));
    await person.click(screen.getByRole('radio', { name: /^Value 55,/ }));
    await person.type(screen.getByLabelText('Search metric'), '44');
    await waitFor(() => expect(screen.getAllByRole('radio')).toHaveLength(1));
    await person.click(screen.getByRole('radio'));
    expect(chosen).toEqual(['Value 55', 'Value 44']);
    await waitFor(() => expect(lists(sent, '/api/metrics').at(-1)).toContain('search=44'));
    await person.type(screen.getByLabelText('Search metric'), ' steam');
    expect(await screen.findByText('Nothing found for "44 steam".')).toBeTruthy();
  });

  it('offers only what fits, leaves out what is taken, and something else above them', async () => {
    const other = jest.fn();
    const { person } = renderScreen(
      <MetricPick
        name="State"
        chosen={null}
        filter={{ kind: 'state' }}
        leaveOut={new Set(['2'])}
        instead={{ label: 'In any state', onChoose: other }}
        onChoose={() => undefined}
      />,
      {
        'GET /api/metrics': [
          metric('1', 'Drum', { kind: 'state', unit: '' }),
          metric('2', 'Door', { kind: 'state' }),
          metric('3', 'Gas'),
        ],
      },
    );
    await screen.findByRole('radio', { name: /^Drum/ });
    const radios = screen.getAllByRole('radio');
    expect(radios.map(({ textContent }) => textContent)).toEqual([
      'In any state',
      'Drum, Dryer 1Quayside · state',
    ]);
    expect(radios[0].getAttribute('aria-checked')).toBe('true');
    await person.click(radios[0]);
    expect(other).toHaveBeenCalled();
  });
});

describe('a pick of assets', () => {
  it('has the chosen one first though it lies on a later page, and never what hangs below another', async () => {
    const more = Array.from({ length: 60 }, (_, i) => asset(String(100 + i), '1', `Press ${i}`));
    renderScreen(<AssetPick name="Parent" chosen="159" leaveOut="2" onChoose={() => undefined} />, {
      'GET /api/assets': [...ASSETS, ...more],
    });
    await waitFor(() => expect(screen.getAllByRole('radio')[0].textContent).toMatch(/^Press 59/));
    expect(screen.getAllByRole('radio')[0].getAttribute('aria-checked')).toBe('true');
    expect(screen.queryByRole('radio', { name: /^Dryer/ })).toBeNull();
    expect(screen.getByRole('radio', { name: /^Quayside/ })).toBeTruthy();
  });
});

/** The lines of a tree as text, opened and closed by name. */
function Tree({ search }: { readonly search: string }) {
  const tree = useAssetTree(search);
  return (
    <ul>
      {tree.rows?.map(({ asset: { id, name }, depth, children }) => (
        <li key={id}>
          <button onClick={() => tree.toggle(id)}>
            {`${'>'.repeat(depth)}${name}${children > 0 ? (tree.isOpen(id) ? ' open' : ' closed') : ''}`}
          </button>
        </li>
      ))}
      {tree.hidden > 0 && <li>{`${tree.hidden} hidden`}</li>}
      {tree.more > 0 && <button onClick={tree.loadMore}>{`${tree.more} more`}</button>}
    </ul>
  );
}
const lines = (): (string | null)[] => screen.getAllByRole('button').map(({ textContent }) => textContent);

describe('the tree of assets', () => {
  it('loads what is open, and no more', async () => {
    const { person, sent } = renderScreen(<Tree search="" />, answers);
    await waitFor(() => expect(lines()).toEqual(['Quayside open', '>Dryers closed', 'Upper Weir']));
    expect(lists(sent, '/api/assets').some((path) => path.includes('parentId=2'))).toBe(false);
    await person.click(screen.getByText('>Dryers closed'));
    await waitFor(() =>
      expect(lines()).toEqual(['Quayside open', '>Dryers open', '>>Dryer 1', '>>Dryer 2', 'Upper Weir']),
    );
    await person.click(screen.getByText('Quayside open'));
    await waitFor(() => expect(lines()).toEqual(['Quayside closed', 'Upper Weir']));
  });

  it('says how many hang below that are too many to be shown', async () => {
    const many = Array.from({ length: 510 }, (_, i) => asset(String(1000 + i), '1', `Press ${i}`));
    renderScreen(<Tree search="" />, { 'GET /api/assets': [asset('1', null, 'Quayside'), ...many] });
    expect(await screen.findByText('10 hidden')).toBeTruthy();
  });

  it('has plants closed at first where there are many', async () => {
    const plants = Array.from({ length: 12 }, (_, i) => asset(String(20 + i), null, `Plant ${i}`));
    renderScreen(<Tree search="" />, { 'GET /api/assets': [...plants, asset('50', '20', 'Hall')] });
    await waitFor(() => expect(lines()).toHaveLength(12));
    expect(lines()[0]).toBe('Plant 0 closed');
  });

  it('shows what a search finds with what stands above it, once, and the rest when asked', async () => {
    const more = Array.from({ length: 70 }, (_, i) => asset(String(100 + i), '2', `Press ${i}`));
    const { person } = renderScreen(<Tree search="press" />, { 'GET /api/assets': [...ASSETS, ...more] });
    await waitFor(() => expect(lines()).toHaveLength(2 + 50 + 1));
    expect(lines().slice(0, 3)).toEqual(['Quayside open', '>Dryers open', '>>Press 0']);
    await person.click(screen.getByText('20 more'));
    await waitFor(() => expect(lines()).toHaveLength(2 + 70));
  });
});
