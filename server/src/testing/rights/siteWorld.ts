import { DAY_MS, HOUR_MS, MINUTE_MS, SHARED_WITH_ALL, WHOLE_SCOPE } from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, emptyReadout } from '@vivid-beacon/core/src/boards';
import { keepScopes } from '../../alarms/rules';
import {
  filePart,
  finishOrder,
  indicatorDraft,
  push,
  ruleDraft,
  type TestServer,
  type Visitor,
} from '../testServer';

/** Ids of one of everything at one plant. Each name has the mark of its plant in it. */
export interface Site {
  readonly mark: string;
  readonly plantId: string;
  readonly machineId: string;
  readonly spareAssetId: string;
  readonly metricId: string;
  readonly metricKey: string;
  readonly spareMetricId: string;
  readonly derivedId: string;
  readonly referenceId: string;
  readonly removedMetricId: string;
  readonly erasedMetricId: string;
  readonly removedAssetId: string;
  readonly ruleId: string;
  readonly alarmId: string;
  readonly indicatorId: string;
  readonly spareIndicatorId: string;
  readonly boardId: string;
  readonly flagId: string;
  readonly closedFlagId: string;
  readonly stopId: string;
  readonly jobId: string;
  readonly remarkId: string;
  readonly intakeId: string;
  readonly tokenId: string;
  readonly token: string;
}

const HEARD = 'washed{line="2"}';

/** One of everything at a plant of this name. */
export async function makeSite(test: TestServer, administrator: Visitor, mark: string): Promise<Site> {
  const now = test.clock.now;
  const make = async <T extends { id: string }>(path: string, body: object, method = 'POST'): Promise<T> => {
    const answer = await administrator.call<T>(method, path, body);
    if (answer.status >= 300) throw new Error(`${path}: ${JSON.stringify(answer.body)}`);
    return answer.body;
  };
  const asset = async (name: string, parentId: string | null): Promise<string> =>
    (
      await make('/api/assets', {
        name: `${name} ${mark}`,
        kind: parentId ? 'machine' : 'plant',
        parentId,
        zone: parentId ? null : 'Europe/London',
        attributes: { [`maker ${mark}`]: 'x' },
      })
    ).id;
  const plantId = await asset('Plant', null);
  const machineId = await asset('Washer', plantId);
  const spareAssetId = await asset('Spare', plantId);
  const removedAssetId = await asset('Scrap', plantId);
  const metric = (name: string, of = machineId): Promise<{ id: string; key: string }> =>
    make('/api/metrics', {
      assetId: of,
      name: `${name} ${mark}`,
      unit: '°C',
      kind: 'level',
      intervalMs: MINUTE_MS,
      maxGapMs: 2 * HOUR_MS,
    });
  const { id: metricId, key: metricKey } = await metric('Bed');
  const { id: spareMetricId } = await metric('Oil');
  const { id: removedMetricId } = await metric('Old');
  const { id: erasedMetricId } = await metric('Worn');
  for (const id of [removedMetricId, erasedMetricId])
    await administrator.call('DELETE', `/api/metrics/${id}`);
  await administrator.call('DELETE', `/api/assets/${removedAssetId}`);
  const measure = { metricId, summary: 'mean', per: null };
  const { id: derivedId } = await make('/api/derived', {
    assetId: machineId,
    name: `Twice ${mark}`,
    kind: 'level',
    decimals: 1,
    unit: '°C',
    way: 'samples',
    expression: '(a + a) / 2',
    bindings: { a: { kind: 'metric', metricId, summary: null } },
  });
  const { id: referenceId } = await make('/api/reference-series', {
    assetId: plantId,
    name: `Budget ${mark}`,
    kind: 'amount',
    period: 'month',
  });
  const { id: tokenId, token } = await make<{ id: string; token: string }>('/api/push-tokens', {
    name: `Sender ${mark}`,
    plantId,
  });
  const samples = Array.from({ length: 120 }, (_, i) => ({
    metric: metricKey,
    t: now - HOUR_MS * 3 + i * MINUTE_MS,
    v: 100 + (i % 7),
  }));
  await push(test.url, token, samples);
  await push(test.url, token, `${HEARD} 1 ${now / 1000}\n# EOF\n`, {
    'content-type': 'application/openmetrics-text',
  });
  // Over the limit before the rule is made: an alarm at once.
  await push(test.url, token, [{ metric: metricKey, t: now - MINUTE_MS, v: 500 }]);
  const { id: ruleId } = await make(
    '/api/alarm-rules',
    ruleDraft(metricId, { name: `Hot ${mark}`, latching: true }),
  );
  const alarms = await administrator.call<{ items: { id: string }[] }>('GET', `/api/alarms?ruleId=${ruleId}`);
  const alarmId = alarms.body.items[0].id;
  const indicator = (name: string): Promise<{ id: string }> =>
    make('/api/indicators', indicatorDraft(plantId, metricId, { name: `${name} ${mark}` }));
  const { id: indicatorId } = await indicator('Mean');
  const { id: spareIndicatorId } = await indicator('Spare mean');
  // A board belongs to no plant: whoever it is shared with sees its title.
  const { id: boardId } = await make('/api/boards', {
    title: 'Floor',
    shares: SHARED_WITH_ALL,
    document: {
      version: BOARD_FORMAT_VERSION,
      window: { kind: 'rolling', count: 7, unit: 'day' },
      readouts: [{ ...emptyReadout('a', 'figure'), measures: [measure] }],
      scope: WHOLE_SCOPE,
      hours: null,
    },
  });
  const flag = (title: string): Promise<{ id: string }> =>
    make('/api/flags', {
      title: `${title} ${mark}`,
      note: '',
      toPersonId: '4',
      dueAt: now + DAY_MS,
      assetId: machineId,
      metricId,
    });
  const { id: flagId } = await flag('Belt');
  const { id: closedFlagId } = await flag('Pads');
  await administrator.call('POST', `/api/flags/${closedFlagId}/outcome`, { outcome: 'mended' });
  const { id: stopId } = await make('/api/stops', {
    assetId: machineId,
    start: now - 2 * HOUR_MS,
    end: now - HOUR_MS,
    reason: `Jam ${mark}`,
  });
  const { id: jobId } = await make('/api/jobs', {
    assetId: machineId,
    number: `17 ${mark}`,
    history: [{ at: now - DAY_MS, status: 'open' }],
  });
  await make(
    `/api/desks/${machineId}/statuses`,
    { kinds: [{ status: 'open', stopsClock: false, endsJob: false }] },
    'PUT',
  );
  const { id: remarkId } = await make('/api/remarks', {
    assetId: machineId,
    start: now - 2 * HOUR_MS,
    end: now - HOUR_MS,
    kind: 'note',
    text: `Door ${mark}`,
  });
  const { id: intakeId } = await make('/api/intakes', {
    fileName: `${mark}.csv`,
    fileSize: 10,
    fileHash: 'a'.repeat(64),
    layout: {},
  });
  const part = filePart(0, [{ metricId: spareMetricId, t: [now - DAY_MS], v: [5] }]);
  await administrator.call('POST', `/api/intakes/${intakeId}/parts`, part);
  await administrator.call('POST', `/api/intakes/${intakeId}/finish`, finishOrder(1, { taken: 1 }));
  await keepScopes(test.server.app.pool, now);
  return {
    mark,
    plantId,
    machineId,
    spareAssetId,
    metricId,
    metricKey,
    spareMetricId,
    derivedId,
    referenceId,
    removedMetricId,
    erasedMetricId,
    removedAssetId,
    ruleId,
    alarmId,
    indicatorId,
    spareIndicatorId,
    boardId,
    flagId,
    closedFlagId,
    stopId,
    jobId,
    remarkId,
    intakeId,
    tokenId,
    token,
  };
}
