import { flagsApi } from '@vivid-beacon/core/src/api/flags';
import { BeaconError } from '@vivid-beacon/core';
import { addEvent, findAlarm } from '../alarms/sql';
import { findAsset } from '../assets/sql';
import { withTransaction } from '../db/database';
import { endpoints } from '../http/endpoint';
import { notify } from '../live/notify';
import { metricsById } from '../metrics/sql';
import { tellOfFlag } from './flagNotices';
import { evidenceOfAlarm } from './evidence';
import { needFlag, needTaker } from './handing';
import { addFlag, eventsOfFlag, findFlag, flagsOnTime, listClosedFlags, listOpenFlags } from './sql';

export const flagEndpoints = endpoints(flagsApi, {
  'GET /api/flags': ({ app, query }) =>
    query.state === 'closed' ? listClosedFlags(app.pool) : listOpenFlags(app.pool),

  'GET /api/flags/on-time': ({ app, query }) => {
    const ids = [...new Set(query.metricIds.split(','))];
    return flagsOnTime(app.pool, ids, { start: query.from, end: query.to });
  },

  'GET /api/flags/:id': async ({ app, params }) => {
    const flag = await needFlag(app.pool, params.id);
    return { flag, events: await eventsOfFlag(app.pool, flag.id) };
  },

  'POST /api/flags': async ({ app, db, body, person }) => {
    const taker = await needTaker(app.pool, body.toPersonId);
    if (!(await findAsset(db, body.assetId))) {
      throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'assetId');
    }
    if (body.metricId !== null && !(await metricsById(db, [body.metricId])).has(body.metricId)) {
      throw new BeaconError('BAD_INPUT', 'This metric does not exist.', 'metricId');
    }
    const alarm = body.alarmId === null ? null : await findAlarm(app.pool, body.alarmId);
    if (alarm === undefined) throw new BeaconError('BAD_INPUT', 'This alarm does not exist.', 'alarmId');
    const at = app.now();
    const id = await withTransaction(app.pool, async (db) => {
      const flagId = await addFlag(db, {
        ...body,
        metricId: body.metricId ?? alarm?.metricId ?? null,
        evidence: body.evidence ?? (alarm ? evidenceOfAlarm(alarm, at) : null),
        fromPersonId: person.id,
        at,
      });
      if (alarm) {
        await addEvent(db, {
          alarmId: alarm.id,
          at,
          kind: 'flagged',
          personId: person.id,
          remark: `${body.title}, handed to ${taker.name}`,
        });
        await notify(db, 'alarms', [alarm.id]);
      }
      await notify(db, 'flags', [flagId]);
      await tellOfFlag(db, (await findFlag(db, flagId))!, person.id, at);
      return flagId;
    });
    return (await findFlag(app.pool, id))!;
  },
});
