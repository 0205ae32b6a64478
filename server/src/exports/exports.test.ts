import { monitorEventLoopDelay } from 'node:perf_hooks';
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { decodeColumns, type ErrorBody } from '@vivid-beacon/core';
import { withTransaction } from '../db/database';
import { mergeIntoStore } from '../samples/store';
import { onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';

const MINUTE = 60_000;
const { test, analyst } = onTestServer('analyst');

const get = (path: string) => fetch(test.url + path, { headers: { cookie: analyst.cookie() } });

async function filled(n: number, name = 'Bed temperature') {
  const made = await serverWithMetric(analyst, { name });
  await push(
    test.url,
    made.token,
    Array.from({ length: n }, (_, i) => ({ metric: made.key, t: TEST_NOW - (n - i) * MINUTE, v: i / 4 })),
  );
  return made;
}

describe('pages of raw samples', () => {
  it('give every sample once, wherever the pages are cut', async () => {
    const { metricId } = await filled(4000);
    const from = TEST_NOW - 3990 * MINUTE;
    const seen: number[] = [];
    let total = 0;
    for (let offset = 0; offset < 4000; offset += 700) {
      const response = await get(
        `/api/metrics/${metricId}/samples?from=${from}&to=${TEST_NOW}&offset=${offset}&limit=700`,
      );
      const { head, columns } = decodeColumns<{ total: number }>(await response.arrayBuffer());
      total = head.total;
      seen.push(...columns.get('v')!);
    }
    expect(total).toBe(3990);
    expect(seen).toEqual(Array.from({ length: 3990 }, (_, i) => (i + 10) / 4));
  });
});

describe('exports', () => {
  const address = (id: string, format: string): string =>
    `/api/exports/samples?metricIds=${id}&from=${TEST_NOW - 60 * MINUTE}&to=${TEST_NOW}&format=${format}`;

  it('write RFC 4180 with escaped formulas, lines of JSON, and a spreadsheet with real times', async () => {
    const { metricId, key } = await filled(90, '=HYPERLINK("http://x"),"a"');
    const csv = await get(address(metricId, 'csv'));
    expect(csv.headers.get('content-disposition')).toContain('.csv"');
    const { data, errors } = Papa.parse<Record<string, string>>((await csv.text()).replace(/^\uFEFF/, ''), {
      header: true,
      skipEmptyLines: true,
    });
    expect(errors).toEqual([]);
    expect(data).toHaveLength(60);
    expect(data[0]).toMatchObject({
      time_utc: new Date(TEST_NOW - 60 * MINUTE).toISOString(),
      // Winter in London; a summer day is an hour ahead.
      time_local: new Date(TEST_NOW - 60 * MINUTE).toISOString().replace('.000Z', '+00:00'),
      metric: `'=HYPERLINK("http://x"),"a"`,
      value: '7.5',
      quality: 'good',
    });
    const ndjson = (await (await get(address(metricId, 'ndjson'))).text()).trim().split('\n');
    expect(JSON.parse(ndjson[59])).toMatchObject({ metric: key, v: 89 / 4 });
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(await (await get(address(metricId, 'xlsx'))).arrayBuffer());
    const sheet = book.getWorksheet('Samples')!;
    expect(sheet.actualRowCount).toBe(61);
    expect(sheet.getCell('A2').value).toEqual(new Date(TEST_NOW - 60 * MINUTE));
    expect(sheet.getCell('G2').value).toBe(7.5);
    expect(sheet.getCell('E2').formula).toBeUndefined();
  });

  it('hold nobody up while a spreadsheet of many samples is written, and end when its reader leaves', async () => {
    const { metricId } = await filled(10_000);
    for (let part = 1; part < 12; part++) {
      const t = Float64Array.from(
        { length: 10_000 },
        (_, i) => TEST_NOW - part * 10_000_000 - (10_000 - i) * 1000,
      );
      const incoming = new Map([[metricId, { t, v: t.map((_, i) => i), q: null }]]);
      await withTransaction(test.server.app.pool, (db) => mergeIntoStore(db, incoming, 'test', TEST_NOW));
    }
    const dense = `/api/exports/samples?metricIds=${metricId}&from=${TEST_NOW - 40 * 86_400_000}&to=${TEST_NOW}&format=xlsx`;
    const delay = monitorEventLoopDelay({ resolution: 10 });
    const began = performance.now();
    const book = get(dense).then((response) => response.arrayBuffer());
    delay.enable();
    const bytes = await book;
    delay.disable();
    const took = performance.now() - began;
    // The main thread was free for most of it.
    expect(bytes.byteLength).toBeGreaterThan(1_000_000);
    expect(delay.max / 1e6).toBeLessThan(took / 3);
    const stop = new AbortController();
    const left = await fetch(test.url + dense, {
      headers: { cookie: analyst.cookie() },
      signal: stop.signal,
    });
    await left.body!.getReader().read();
    stop.abort();
    // Both threads are free again.
    const [one, two] = await Promise.all([get(address(metricId, 'csv')), get(address(metricId, 'ndjson'))]);
    expect((await one.text()).split('\r\n')).toHaveLength(62);
    expect((await two.text()).trim().split('\n')).toHaveLength(60);
  });

  it('go to signed-in people only, and refuse metrics without samples of their own', async () => {
    const { metricId, assetId } = await filled(5);
    expect((await fetch(test.url + address(metricId, 'csv'))).status).toBe(401);
    const series = await analyst.call<{ id: string }>('POST', '/api/reference-series', {
      assetId,
      name: 'Budget',
      kind: 'amount',
      period: 'month',
    });
    const refused = (await (await get(address(series.body.id, 'csv'))).json()) as { error: ErrorBody };
    expect(refused.error.message).toContain('has no raw samples');
  });
});

describe('coverage by day and degree days', () => {
  it('tell what a day is worth', async () => {
    const { metricId } = await filled(36 * 60);
    const { body } = await analyst.call<{ coverage: number[]; samples: number[] }>(
      'GET',
      `/api/metrics/${metricId}/coverage?days=3`,
    );
    expect(body.coverage).toEqual([0, 1, 1]);
    expect(body.samples).toEqual([0, 1440, 720]);
    const ask = {
      window: { kind: 'periods', count: 3, unit: 'day', current: true },
      base: 400,
      kind: 'heating',
      method: 'minMax',
    };
    const days = await analyst.call<{ degreeDays: (number | null)[]; missing: number }>(
      'POST',
      `/api/metrics/${metricId}/degree-days`,
      ask,
    );
    // Yesterday rose evenly from 0 to 359.75: base minus half of both; the day before and today do not count.
    expect(days.body).toMatchObject({ degreeDays: [null, 400 - 359.75 / 2, null], missing: 2 });
  });
});
