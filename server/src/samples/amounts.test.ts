import fc from 'fast-check';
import { decodeColumns, type Metric } from '@vivid-beacon/core';
import { askQuery } from '../testing/askQuery';
import { onTestServer, push, serverWithMetric } from '../testing/testServer';

/*
 * Meters write the end of an interval: the line "01:00" is the hour from 00:00 to 01:00. Worked by hand on a
 * winter day in London: 24 lines from 01:00 to 24:00 with 1 to 24 kWh.
 */

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY_START = Date.UTC(2026, 10, 18);
const { test, analyst } = onTestServer('analyst');

const METER = { name: 'Energy', unit: 'kWh', kind: 'amount', intervalMs: HOUR, maxGapMs: HOUR };
const written = (key: string) =>
  Array.from({ length: 24 }, (_, i) => ({ metric: key, t: DAY_START + (i + 1) * HOUR, v: i + 1 }));

const iso = (t: number): string => new Date(t).toISOString().slice(0, 19);
async function sumOf(metricId: string, start: number, end: number, bucket: string | null = null) {
  const { body } = await askQuery(analyst, {
    select: { metricIds: [metricId] },
    summary: 'sum',
    bucket,
    window: { kind: 'absolute', start: iso(start), end: iso(end) },
  });
  const { values, coverage } = body.groups[0];
  return values.map((value, i) => ({ value, coverage: coverage[i] }));
}
const bytesOf = async (path: string): Promise<ArrayBuffer> =>
  (await fetch(test.url + path, { headers: analyst.headers() })).arrayBuffer();
const save = (id: string, part: object) =>
  analyst.call<Metric>('PUT', `/api/metrics/${id}`, { ...METER, decimals: 0, ...part });

describe('amounts stamped with the end of their interval', () => {
  it('count in the hour and on the day they were used', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { ...METER, stamped: 'end' });
    await push(test.url, token, written(key));
    const [day] = await sumOf(metricId, DAY_START, DAY_START + 24 * HOUR);
    expect(day).toMatchObject({ value: 300, coverage: 1 });
    const hours = await sumOf(metricId, DAY_START, DAY_START + 24 * HOUR, 'hour');
    expect(hours.map(({ value }) => value)).toEqual(Array.from({ length: 24 }, (_, i) => i + 1));
    // Stamped with the start, the line of midnight would be the next day's.
    const other = await serverWithMetric(analyst, METER);
    await push(test.url, other.token, written(other.key));
    expect((await sumOf(other.metricId, DAY_START, DAY_START + 24 * HOUR))[0].value).toBe(276);
  });

  it('are listed and exported as they were written, so that sending them again changes nothing', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { ...METER, stamped: 'end' });
    await push(test.url, token, written(key));
    const window = `from=${DAY_START}&to=${DAY_START + 24 * HOUR + 1}`;
    const page = await bytesOf(`/api/metrics/${metricId}/samples?${window}&offset=0&limit=100`);
    expect([...decodeColumns(page).columns.get('t')!]).toEqual(written(key).map(({ t }) => t));
    const text = new TextDecoder().decode(
      await bytesOf(`/api/exports/samples?metricIds=${metricId}&${window}&format=ndjson`),
    );
    const lines = text
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as { t: string; v: number });
    expect(lines.map(({ t, v }) => [Date.parse(t), v])).toEqual(written(key).map(({ t, v }) => [t, v]));
    const again = await push<{ unchanged: number; added: number }>(test.url, token, written(key));
    expect(again.body).toMatchObject({ unchanged: 24, added: 0 });
  });

  it('move when it is found out later what their times stand for, and back', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, METER);
    await push(test.url, token, written(key));
    expect((await save(metricId, { stamped: 'end' })).status).toBe(200);
    expect((await sumOf(metricId, DAY_START, DAY_START + 24 * HOUR))[0]).toMatchObject({
      value: 300,
      coverage: 1,
    });
    // Of another interval they begin at another time too.
    await save(metricId, { stamped: 'end', intervalMs: 30 * MINUTE });
    expect((await sumOf(metricId, DAY_START, DAY_START + 24 * HOUR))[0]).toMatchObject({
      value: 300,
      coverage: 0.5,
    });
    await save(metricId, { stamped: 'start' });
    expect((await sumOf(metricId, DAY_START, DAY_START + 24 * HOUR))[0].value).toBe(276);
  });
});

describe('amounts that a window cuts', () => {
  it('count by the share of their interval where that is set, from rollups and from samples alike', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, {
      ...METER,
      stamped: 'end',
      cut: 'share',
    });
    await push(test.url, token, written(key));
    const quarters = await sumOf(metricId, DAY_START, DAY_START + 2 * HOUR, 'quarterHour');
    expect(quarters.map(({ value }) => value)).toEqual([0.25, 0.25, 0.25, 0.25, 0.5, 0.5, 0.5, 0.5]);
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 0, max: 24 * 60 - 1 }),
        fc.integer({ min: 1, max: 24 * 60 }),
        async (from, length) => {
          const start = DAY_START + from * MINUTE;
          const end = Math.min(DAY_START + 24 * HOUR, start + length * MINUTE);
          const shares = written(key).map(({ t, v }) => {
            const inside = Math.min(end, t) - Math.max(start, t - HOUR);
            return inside > 0 ? (v * inside) / HOUR : 0;
          });
          const [{ value, coverage }] = await sumOf(metricId, start, end);
          expect(value).toBeCloseTo(
            shares.reduce((a, b) => a + b, 0),
            9,
          );
          expect(coverage).toBeCloseTo(1, 9);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('count in full where they begin otherwise, and a change of that counts at once', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { ...METER, stamped: 'end' });
    await push(test.url, token, written(key));
    const half = (): Promise<{ value: number | null }[]> =>
      sumOf(metricId, DAY_START, DAY_START + 90 * MINUTE);
    expect((await half())[0].value).toBe(3);
    await save(metricId, { stamped: 'end', cut: 'share' });
    expect((await half())[0].value).toBe(2);
  });
});
