import { read, utils } from '@e965/xlsx';
import { PNG } from 'pngjs';
import {
  HOUR_MS,
  MINUTE_MS,
  SHARED_WITH_ALL,
  WHOLE_SCOPE,
  type Board,
  type Readout,
  type ReadoutParts,
} from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, makeReadout, READOUT_FORMS } from '@vivid-beacon/core/src/boards';
import { XLSX } from '@vivid-beacon/core/src/api/pictures';
import { onTestServer, push, TEST_NOW, serverWithMetric, type Visitor } from '../testing/testServer';

const { test, analyst, viewer } = onTestServer('analyst', 'viewer');

let board = '';
let otherPlant = '';
const readout = (
  { id, form, ...parts }: ReadoutParts & Pick<Readout, 'id' | 'form'>,
  metricId: string,
): Readout =>
  makeReadout(id, form, {
    measures: form === 'note' ? [] : [{ metricId, summary: 'mean', per: null }],
    ...parts,
  });

beforeAll(async () => {
  const { metricId, key, token } = await serverWithMetric(analyst);
  const samples = Array.from({ length: 300 }, (_, i) => ({
    metric: key,
    t: TEST_NOW - (300 - i) * MINUTE_MS,
    v: 170 + (i % 30),
  }));
  await push(test.url, token, samples);
  const rate = await serverWithMetric(analyst, { name: 'Washed weight', unit: 'kg', kind: 'amount' });
  otherPlant = rate.assetId;
  await push(
    test.url,
    rate.token,
    samples.map((each) => ({ ...each, metric: rate.key })),
  );
  const band = {
    direction: 'inside',
    breachLow: 150,
    clearLow: 165,
    clearHigh: 182,
    breachHigh: 190,
    target: 175,
  } as const;
  const readouts = READOUT_FORMS.map((form) =>
    form === 'ring'
      ? readout(
          { id: form, form, measures: [{ metricId: rate.metricId, summary: 'sum', per: null }] },
          metricId,
        )
      : readout(
          { id: form, form, band, decimals: 1, text: '# Heading\n\nWords for **everybody**.' },
          metricId,
        ),
  );
  const more = [
    readout({ id: 'several', form: 'gauge', groupBy: { kind: 'asset' } }, metricId),
    readout({ id: 'mean ring', form: 'ring' }, metricId),
    readout({ id: 'ironer <1> & co', form: 'figure', title: 'A & B <i>' }, metricId),
  ];
  const made = await analyst.call<Board>('POST', '/api/boards', {
    title: 'Pictures',
    shares: SHARED_WITH_ALL,
    document: {
      version: BOARD_FORMAT_VERSION,
      window: { kind: 'rolling', count: 6, unit: 'hour' },
      scope: WHOLE_SCOPE,
      hours: null,
      readouts: [...readouts, ...more],
    },
  });
  board = made.body.id;
});

const at = (name: string, query = ''): string =>
  `/api/boards/${board}/readouts/${encodeURIComponent(name)}${query}`;
const svgOf = async (name: string, query = '', who: Visitor = viewer): Promise<string> => {
  const answer = await who.call<string>('GET', at(`${name}.svg`, query));
  if (answer.status !== 200) throw new Error(JSON.stringify(answer.body));
  return answer.body;
};
async function pngOf(name: string, query = ''): Promise<PNG> {
  const answer = await fetch(test.url + at(`${name}.png`, query), { headers: viewer.headers() });
  expect(answer.status).toBe(200);
  expect(answer.headers.get('content-type')).toBe('image/png');
  return PNG.sync.read(Buffer.from(await answer.arrayBuffer()));
}

describe('a readout as a picture', () => {
  it.each(READOUT_FORMS)(
    'is drawn for the form %s, as SVG and as PNG of the size that was asked for',
    async (form) => {
      const svg = await svgOf(form);
      expect(svg).toMatch(/^<svg [^>]*width="480"/);
      expect(svg).not.toMatch(/NaN|Infinity|undefined/);
      const png = await pngOf(form, '?width=300&scale=1');
      expect(png.width).toBe(300);
      expect(png.height).toBeGreaterThan(20);
    },
  );

  it('tells the numbers that the readings tell', async () => {
    const svg = await svgOf('figure');
    // 170 to 199 over whole rounds of thirty: the mean of all is 184.5.
    expect(svg).toContain('>184.5<');
    expect(svg).toContain('Caution');
    expect(await svgOf('trend')).toContain('in °C, samples, spikes kept, target 175 at the triangle');
  });

  it('stands under its title, or by itself', async () => {
    expect(await svgOf('gauge')).toContain('Besley');
    expect(await svgOf('gauge', '?bare=true')).not.toContain('Besley');
  });

  it('is looked at as the address of the board says', async () => {
    const elsewhere = JSON.stringify({ assetIds: [otherPlant], attributes: [] });
    expect(await svgOf('several')).toContain('Plant ');
    const narrowed = await viewer.call('GET', at('several.svg', `?scope=${encodeURIComponent(elsewhere)}`));
    expect(narrowed).toMatchObject({ status: 422, body: { error: { path: 'scope' } } });
  });

  it('says why there is none, where a form cannot be drawn', async () => {
    expect(await svgOf('mean ring')).toContain('No whole to have shares of');
  });

  it('holds nothing that a title brings along, and runs no scripts', async () => {
    const name = 'ironer <1> & co';
    expect(await svgOf(name)).toContain('A &amp; B &lt;i&gt;');
    const answer = await fetch(test.url + at(`${name}.svg`), { headers: viewer.headers() });
    expect(answer.headers.get('content-security-policy')).toContain("default-src 'none'");
  });

  it('is refused without a board, a readout, a kind, or a session', async () => {
    expect((await viewer.call('GET', '/api/boards/999999/readouts/gauge.svg')).status).toBe(404);
    expect((await viewer.call('GET', at('nothing.svg'))).status).toBe(404);
    expect((await viewer.call('GET', at('gauge.gif'))).status).toBe(404);
    expect((await viewer.call('GET', at('gauge.svg', '?width=9'))).status).toBe(422);
    const huge = '?width=2400&height=2400&scale=4';
    const tooLarge = await viewer.call('GET', at('trend.png', huge));
    expect(tooLarge).toMatchObject({ status: 422, body: { error: { path: 'scale' } } });
    expect((await viewer.call('GET', at('trend.svg', huge))).status).toBe(200);
    expect((await test.visitor().call('GET', at('gauge.svg'))).status).toBe(401);
  });

  it('has the same numbers as rows, unrounded', async () => {
    const csv = async (name: string): Promise<string[]> =>
      (await viewer.call<string>('GET', at(`${name}.csv`))).body.trimEnd().split('\r\n');
    const [head, row, ...none] = await csv('gauge');
    expect(head).toBe('Name,Value (°C),Level,Compared with (°C),Coverage (%),As of');
    expect(row).toMatch(/^Plant \w+,184\.5,Caution,,\d+(\.\d+)?,2026-11-19T11:59:00\.000\+00:00$/);
    expect(none).toEqual([]);
    const lines = await csv('trend');
    expect(lines[0]).toMatch(/^Time,Plant \w+ \(°C\)$/);
    // Before the first sample nothing is known.
    expect(lines).toHaveLength(302);
    expect(lines.slice(1, 3)).toEqual([
      '2026-11-19T06:00:00.000+00:00,',
      '2026-11-19T07:00:00.000+00:00,170',
    ]);
    expect((await csv('mean ring'))[0]).toBe('No whole to have shares of');
  });

  it('goes out as a workbook and as NDJSON, with what the numbers are of; the board with a sheet a readout', async () => {
    const bookOf = async (path: string) => {
      const answer = await fetch(test.url + path, { headers: viewer.headers() });
      expect(answer.headers.get('content-type')).toBe(XLSX);
      return read(await answer.arrayBuffer());
    };
    const one = await bookOf(at('gauge.xlsx'));
    expect(one.SheetNames).toHaveLength(2);
    const [about, numbers] = one.SheetNames.map((name) =>
      utils.sheet_to_json<unknown[]>(one.Sheets[name], { header: 1 }),
    );
    expect(about).toContainEqual(['Window', 'the last 6 hours']);
    expect(about).toContainEqual(['Assets', 'all']);
    expect(about.find(([name]) => name === 'Least coverage')?.[1]).toMatch(/^\d+(\.\d)? %$/);
    expect(numbers[2][1]).toBe(184.5);
    const ndjson = (await viewer.call<string>('GET', at('gauge.ndjson'))).body;
    expect(JSON.parse(ndjson)).toMatchObject({ 'Value (°C)': 184.5, Level: 'Caution' });
    const whole = await bookOf(`/api/boards/${board}/numbers.xlsx`);
    // All forms but the note, three more, and what they are of.
    expect(whole.SheetNames).toHaveLength(READOUT_FORMS.length - 1 + 3 + 1);
    // Narrowed to a plant that a readout has nothing in, that one says so, and the others are there.
    const elsewhere = encodeURIComponent(JSON.stringify({ assetIds: [otherPlant], attributes: [] }));
    const narrowed = await bookOf(`/api/boards/${board}/numbers.xlsx?scope=${elsewhere}`);
    expect(JSON.stringify(utils.sheet_to_json(narrowed.Sheets.About, { header: 1 }))).toContain('Not read');
    expect((await viewer.call('GET', '/api/boards/999999/numbers.xlsx')).status).toBe(404);
  });

  it('is written in the formats of whoever asks, one beside the other', async () => {
    const look = `?window=${encodeURIComponent('rolling 6 hour')}`;
    const told = async (who: Visitor): Promise<string> =>
      (await svgOf('figure', look, who)).replace(/<style.*?<\/style>/s, '');
    const before = await told(viewer);
    const own = { name: 'The analyst', startAt: '/' };
    const formats = { numbers: '1.234,5', dateOrder: 'monthDay', clock: '12', firstWeekday: 1 };
    expect((await analyst.call('PUT', '/api/own-account', { ...own, formats })).status).toBe(204);
    const [german, usual] = await Promise.all([told(analyst), told(viewer)]);
    expect(usual).toBe(before);
    expect(before).toMatch(/>[^<]*\d\.\d[^<]*</);
    expect(german).not.toMatch(/>[^<]*\d\.\d[^<]*</);
    expect(german).toMatch(/>[^<]*\d,\d[^<]*</);
    await analyst.call('PUT', '/api/own-account', { ...own, formats: null });
  });

  it('by night is drawn in the colours of the night', async () => {
    expect(await svgOf('lamp', '?theme=night')).toContain('#11232A');
    expect(await svgOf('lamp')).not.toContain('#11232A');
  });

  it('of a time that has no samples says so', async () => {
    const before = test.clock.now;
    test.clock.now = TEST_NOW + 48 * HOUR_MS;
    expect(await svgOf('lamp')).toContain('No data');
    expect(await svgOf('trend')).toContain('No readings in this window');
    test.clock.now = before;
  });
});
