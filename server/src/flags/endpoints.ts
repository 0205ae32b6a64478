import { flagsApi } from '@vivid-beacon/core/src/api/flags';
import { BeaconError, searchWords } from '@vivid-beacon/core';
import { findAlarm } from '../alarms/listSql';
import { addEvent } from '../alarms/sql';
import { findAsset } from '../assets/sql';
import { withTransaction } from '../db/database';
import { readAs } from '../db/reader';
import { endpoints } from '../http/endpoint';
import { notify } from '../live/notify';
import { metricsById } from '../metrics/sql';
import { enqueueFlagNotices } from './flagNotices';
import { evidenceOfAlarm } from './evidence';
import { needFlag, needTaker } from './handing';
import { addFlag, eventsOfFlag, flagsOnTime, pageOfFlags } from './sql';

export const flagEndpoints = endpoints(flagsApi, {
  'GET /api/flags': ({ app, db, query: { state, list, search, ...page } }) =>
    pageOfFlags(db, { state, list, words: searchWords(search) }, page, { now: app.now() }),

  'GET /api/flags/on-time': ({ db, query }) => {
    const ids = [...new Set(query.metricIds.split(','))];
    return flagsOnTime(db, ids, { start: query.from, end: query.to });
  },

  'GET /api/flags/:id': async ({ app, db, params }) => {
    const flag = await needFlag(db, params.id);
    return { flag, events: await eventsOfFlag(app.pool, flag.id) };
  },

  'POST /api/flags': async ({ app, db, body, person }) => {
    const asset = await findAsset(db, body.assetId);
    if (!asset) throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'assetId');
    const taker = await needTaker(app.pool, body.toPersonId, asset.plantId);
    if (body.metricId !== null && !(await metricsById(db, [body.metricId])).has(body.metricId)) {
      throw new BeaconError('BAD_INPUT', 'This metric does not exist.', 'metricId');
    }
    const alarm = body.alarmId === null ? null : await findAlarm(db, body.alarmId);
    if (alarm === undefined) throw new BeaconError('BAD_INPUT', 'This alarm does not exist.', 'alarmId');
    const at = app.now();
    const id = await withTransaction(app.pool, async (own) => {
      const flagId = await addFlag(own, {
        ...body,
        metricId: body.metricId ?? alarm?.metricId ?? null,
        evidence: body.evidence ?? (alarm ? evidenceOfAlarm(alarm, at) : null),
        fromPersonId: person.id,
        at,
      });
      if (alarm) {
        await addEvent(own, {
          alarmId: alarm.id,
          at,
          kind: 'flagged',
          personId: person.id,
          remark: `${body.title}, handed to ${taker.name}`,
        });
        await notify(own, 'alarms', [alarm.id]);
      }
      await notify(own, 'flags', [flagId]);
      await enqueueFlagNotices(own, await needFlag(readAs(own, db.asker), flagId), person.id, at);
      return flagId;
    });
    return needFlag(db, id);
  },
});
