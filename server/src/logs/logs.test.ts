import type {
  JobEntry,
  Metric,
  NotesAnswer,
  Reading,
  ReferenceValue,
  StopLog,
  StretchRemark,
  ErrorBody,
} from '@vivid-beacon/core';
import { onTestServer, TEST_NOW, serverWithMetric } from '../testing/testServer';

const MINUTE = 60_000;
const rolling = (count: number) => ({ kind: 'rolling', count, unit: 'hour' });
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
const { test, analyst, operator, viewer } = onTestServer('analyst', 'operator', 'viewer');

type Failed = { error: ErrorBody };
const asset = async (name: string, parentId: string | null = null) =>
  (
    await analyst.call<{ id: string }>('POST', '/api/assets', {
      name,
      kind: parentId ? 'machine' : 'plant',
      parentId,
      zone: parentId ? null : 'Europe/London',
    })
  ).body.id;

describe('the stop log', () => {
  it('takes a stop from a phone, ends it later, and counts overlaps once', async () => {
    const plant = await asset('Stop plant');
    const machine = await asset('Folder', plant);
    const open = { assetId: machine, start: TEST_NOW - 2 * HOUR, reason: 'Belt torn' };
    const made = await operator.call<{ id: string; end: null }>('POST', '/api/stops', open);
    expect(made).toMatchObject({ status: 200, body: { end: null, enteredBy: 'The operator' } });
    await operator.call('POST', '/api/stops', {
      assetId: machine,
      start: TEST_NOW - HOUR,
      end: TEST_NOW - HOUR / 2,
      reason: 'Sensor',
    });
    const where = `assetId=${plant}&from=${TEST_NOW - DAY}&to=${TEST_NOW}`;
    const log = await viewer.call<StopLog>('GET', `/api/stops?${where}`);
    expect(log.body).toMatchObject({
      totalMs: 2 * HOUR,
      byReason: [
        { reason: 'Belt torn', ms: 2 * HOUR },
        { reason: 'Sensor', ms: 0 },
      ],
    });
    await operator.call('PUT', `/api/stops/${made.body.id}`, { ...open, end: TEST_NOW - HOUR });
    expect((await viewer.call<StopLog>('GET', `/api/stops?${where}`)).body.totalMs).toBe(1.5 * HOUR);
    expect((await viewer.call<string[]>('GET', `/api/stops/reasons?assetId=${machine}`)).body).toContain(
      'Sensor',
    );
  });

  it('is told for each asset with what lies below it, by stretch of time, with remarks', async () => {
    const plant = await asset('Told plant');
    const machine = await asset('Told folder', plant);
    await operator.call('POST', '/api/stops', {
      assetId: machine,
      start: TEST_NOW - 3 * HOUR,
      end: TEST_NOW - HOUR,
      reason: 'Belt torn',
    });
    await operator.call('POST', '/api/remarks', {
      assetId: machine,
      start: TEST_NOW - HOUR,
      end: TEST_NOW,
      kind: 'note',
      text: 'Runs again',
    });
    const ask = { assetIds: [plant, machine, '999999'], window: rolling(4), bucket: 'hour', hours: null };
    const { status, body } = await viewer.call<NotesAnswer>('POST', '/api/readings/notes', ask);
    expect(status).toBe(200);
    const said = { reasons: [{ reason: 'Belt torn', ms: HOUR }], open: false, remarks: [] as string[] };
    const told = (assetId: string) => [
      {
        assetId,
        span: 0,
        stoppedMs: 2 * HOUR,
        reasons: [{ reason: 'Belt torn', ms: 2 * HOUR }],
        open: false,
        remarks: ['Runs again'],
      },
      { ...said, assetId, span: 2, stoppedMs: HOUR },
      { ...said, assetId, span: 3, stoppedMs: HOUR },
      { assetId, span: 4, stoppedMs: 0, reasons: [], open: false, remarks: ['Runs again'] },
    ];
    expect(body.notes).toEqual([...told(plant), ...told(machine)]);
    // Only in recurring hours, by the clock of the site.
    const quarter = { ...ask, bucket: null, hours: { kind: 'clock', from: '09:45', to: '10:15' } };
    const inHours = await viewer.call<NotesAnswer>('POST', '/api/readings/notes', quarter);
    expect(inHours.body.notes.map(({ stoppedMs, remarks }) => [stoppedMs, remarks])).toEqual([
      [HOUR / 2, []],
      [HOUR / 2, []],
    ]);
    const year = { ...ask, window: { kind: 'rolling', count: 366, unit: 'day' }, bucket: 'quarterHour' };
    const many = { ...year, assetIds: Array.from({ length: 20 }, () => plant) };
    expect((await viewer.call<Failed>('POST', '/api/readings/notes', many)).body.error.message).toContain(
      'at most 200000 assets times stretches of time',
    );
  });

  it('refuses what makes no sense, and people who may only look', async () => {
    const plant = await asset('Refusing plant');
    const stop = { assetId: plant, start: TEST_NOW - HOUR, end: TEST_NOW - 2 * HOUR, reason: 'x' };
    expect((await operator.call<Failed>('POST', '/api/stops', stop)).body.error.message).toContain(
      'end after it starts',
    );
    expect((await operator.call('POST', '/api/stops', { ...stop, end: null, reason: '' })).status).toBe(422);
    expect(
      (await operator.call('POST', '/api/stops', { ...stop, end: null, start: TEST_NOW + DAY })).status,
    ).toBe(422);
    expect((await viewer.call('POST', '/api/stops', { ...stop, end: null })).status).toBe(403);
  });

  it('takes a list; the same list again changes nothing, and refused entries are named', async () => {
    const plant = await asset('List plant');
    const entry = (key: string, assetId = plant) => ({
      key,
      assetId,
      start: TEST_NOW - HOUR,
      end: TEST_NOW,
      reason: 'Cleaning',
    });
    const list = { entries: [entry('1'), entry('2'), entry('3', '999999')] };
    expect((await analyst.call('POST', '/api/stops/list', list)).body).toMatchObject({
      added: 2,
      changed: 0,
      refused: [{ index: 2 }],
    });
    expect((await analyst.call('POST', '/api/stops/list', list)).body).toMatchObject({
      added: 0,
      changed: 2,
    });
  });
});

describe('the job log', () => {
  it('counts our own statuses in working hours only', async () => {
    const desk = await asset('Desk plant');
    await analyst.call('PUT', `/api/calendars/${desk}`, {
      shifts: [{ name: 'Day', days: [1, 2, 3, 4, 5], from: '09:00', to: '17:00' }],
      holidays: [{ date: '2026-11-18', name: 'Off' }],
    });
    const kinds = [
      { status: 'Waiting for customer', stopsClock: true, endsJob: false },
      { status: 'Done', stopsClock: false, endsJob: true },
    ];
    await analyst.call('PUT', `/api/desks/${desk}/statuses`, { kinds });
    // TEST_NOW is Thursday 19 November, 12:00. Tuesday 15:00 in, customer has it 16:00 to Thursday 10:00.
    const tuesday = TEST_NOW - 2 * DAY;
    const made = await operator.call<JobEntry>('POST', '/api/jobs', {
      assetId: desk,
      number: 'J-1',
      history: [
        { at: tuesday + 3 * HOUR, status: 'Received' },
        { at: tuesday + 4 * HOUR, status: 'Waiting for customer' },
        { at: TEST_NOW - 2 * HOUR, status: 'In work' },
      ],
    });
    expect(made.body).toMatchObject({ open: true, workingMs: 3 * HOUR });
    const done = await operator.call<JobEntry>('POST', `/api/jobs/${made.body.id}/statuses`, {
      at: TEST_NOW - HOUR,
      status: 'Done',
    });
    expect(done.body).toMatchObject({ open: false, workingMs: 2 * HOUR });
    const back = { at: TEST_NOW - 3 * HOUR, status: 'In work' };
    expect((await operator.call('POST', `/api/jobs/${made.body.id}/statuses`, back)).status).toBe(422);
    expect((await viewer.call<JobEntry[]>('GET', `/api/jobs?assetId=${desk}`)).body).toHaveLength(1);
    const ancient = { assetId: desk, number: 'J-1969', history: [{ at: -1, status: 'In work' }] };
    expect((await operator.call('POST', '/api/jobs', ancient)).body).toMatchObject({
      error: { message: 'A job may have begun ten years ago at most, got 1969-12-31.' },
    });
  });
});

describe('working calendars', () => {
  it('take public holidays and the days of an iCalendar file (RFC 5545)', async () => {
    const plant = await asset('Calendar plant');
    const holidays = await analyst.call<{ date: string; name: string }[]>(
      'GET',
      '/api/holidays?country=GB&region=ENG&from=2026&to=2026',
    );
    expect(holidays.body).toContainEqual({ date: '2026-12-25', name: 'Christmas Day' });
    // A folded line, an all-day event whose DTEND is not part of it, and one that comes again every year.
    const file = [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//test//EN',
      'BEGIN:VEVENT',
      'UID:1',
      'DTSTART;VALUE=DATE:20261224',
      'DTEND;VALUE=DATE:20261226',
      'SUMMARY:Winter',
      '  shutdown',
      'END:VEVENT',
      'BEGIN:VEVENT',
      'UID:2',
      'DTSTART;VALUE=DATE:20260701',
      'RRULE:FREQ=YEARLY;COUNT=3',
      'SUMMARY:Founders day',
      'END:VEVENT',
      'END:VCALENDAR',
    ].join('\r\n');
    const session = await fetch(`${test.url}/api/session`, { headers: { cookie: analyst.cookie() } });
    const { csrfToken } = (await session.json()) as { csrfToken: string };
    const send = async (text: string) =>
      fetch(`${test.url}/api/calendars/${plant}/read`, {
        method: 'POST',
        headers: { cookie: analyst.cookie(), 'x-form-token': csrfToken, 'content-type': 'text/calendar' },
        body: text,
      });
    expect(await (await send(file)).json()).toEqual([
      { date: '2026-07-01', name: 'Founders day' },
      { date: '2026-12-24', name: 'Winter shutdown' },
      { date: '2026-12-25', name: 'Winter shutdown' },
      { date: '2027-07-01', name: 'Founders day' },
      { date: '2028-07-01', name: 'Founders day' },
    ]);
    expect((await send('hello')).status).toBe(422);
    const wrong = { shifts: [{ name: 'S', days: [8], from: '06:00', to: '14:00' }] };
    expect((await analyst.call('PUT', `/api/calendars/${plant}`, wrong)).status).toBe(422);
    const machine = await asset('No calendar of its own', plant);
    expect((await analyst.call('GET', `/api/calendars/${machine}`)).status).toBe(404);
  });
});

describe('reference series', () => {
  it('hold a value for each period, prorated where a window takes part of it', async () => {
    const plant = await asset('Budget plant');
    const series = await analyst.call<Metric>('POST', '/api/reference-series', {
      assetId: plant,
      name: 'Gas budget',
      unit: 'kWh',
      kind: 'amount',
      period: 'month',
    });
    const put = await analyst.call<ReferenceValue[]>(
      'PUT',
      `/api/reference-series/${series.body.id}/values`,
      {
        values: [
          { start: '2026-11-01', value: 3000 },
          { start: '2026-12-15', value: 3100 },
        ],
      },
    );
    // A day inside a period selects it.
    expect(put.body).toEqual([
      { start: '2026-11-01', value: 3000 },
      { start: '2026-12-01', value: 3100 },
    ]);
    const over = async (start: string, end: string): Promise<number | null> =>
      (
        await analyst.call<Reading>('POST', '/api/readings/value', {
          measure: { metricId: series.body.id, summary: 'sum', per: null },
          window: { kind: 'absolute', start, end },
        })
      ).body.value;
    expect(await over('2026-11-01', '2026-11-11')).toBeCloseTo(1000, 9);
    // A window in the future shows what is planned.
    expect(await over('2026-12-01', '2027-01-01')).toBeCloseTo(3100, 9);
    const wrong = { values: [{ start: '2026-02-30', value: 1 }] };
    expect((await analyst.call('PUT', `/api/reference-series/${series.body.id}/values`, wrong)).status).toBe(
      422,
    );
    const cleared = { values: [{ start: '2026-12-01', value: null }] };
    const left = await analyst.call<ReferenceValue[]>(
      'PUT',
      `/api/reference-series/${series.body.id}/values`,
      cleared,
    );
    expect(left.body).toHaveLength(1);
  });
});

describe('remarks', () => {
  it('lie on a stretch of time of an asset', async () => {
    const { assetId } = await serverWithMetric(analyst);
    const remark = {
      assetId,
      start: TEST_NOW - 2 * HOUR,
      end: TEST_NOW - HOUR,
      kind: 'abnormal',
      text: 'Steam was off',
    };
    expect((await viewer.call('POST', '/api/remarks', remark)).status).toBe(403);
    const { body } = await operator.call<{ id: string }>('POST', '/api/remarks', remark);
    const list = async (from: number, to: number): Promise<StretchRemark[]> =>
      (await viewer.call<StretchRemark[]>('GET', `/api/remarks?assetId=${assetId}&from=${from}&to=${to}`))
        .body;
    expect(await list(TEST_NOW - DAY, TEST_NOW)).toMatchObject([
      { text: 'Steam was off', author: 'The operator' },
    ]);
    expect(await list(TEST_NOW - HOUR, TEST_NOW)).toEqual([]);
    await operator.call('DELETE', `/api/remarks/${body.id}`);
    expect(await list(TEST_NOW - DAY, TEST_NOW)).toEqual([]);
    const wrong = { ...remark, end: remark.start };
    expect((await operator.call<Failed>('POST', '/api/remarks', wrong)).body.error.message).toContain(
      'end after it starts',
    );
  });
});
