import * as yup from 'yup';
import { BeaconError, flagSchema, fromAndTo, idList } from '@vivid-beacon/core';
import { addEvent, findAlarm } from '../alarms/sql';
import { findAsset } from '../assets/sql';
import { withTransaction } from '../db/database';
import { endpoint } from '../http/endpoint';
import { notify } from '../live/notify';
import { metricsById } from '../metrics/sql';
import { tellOfFlag } from '../notices/flagNotices';
import { evidenceOfAlarm } from './evidence';
import { needFlag, needTaker } from './handing';
import { addFlag, eventsOfFlag, findFlag, flagsOnTime, listClosedFlags, listOpenFlags } from './sql';

const MOST_METRICS = 50;

export const flagEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/flags',
    access: 'viewer',
    summary:
      'Lists flags of everybody: the open ones, those due first in front, or the 200 closed last (?state=closed).',
    answer: '[Flag]',
    query: yup.object({ state: yup.string().oneOf(['open', 'closed']).default('open') }).noUnknown(),
    handle: ({ app, query }) =>
      query.state === 'closed' ? listClosedFlags(app.pool) : listOpenFlags(app.pool),
  }),
  endpoint({
    method: 'get',
    path: '/api/flags/on-time',
    access: 'viewer',
    summary: `Flags on up to ${MOST_METRICS} metrics (ids with commas) that touch a stretch of time, ms.`,
    answer: '[Flag]. 422 when from is not before to.',
    query: yup
      .object({
        metricIds: idList(MOST_METRICS).required(),
        ...fromAndTo(),
      })
      .noUnknown(),
    handle: ({ app, query }) => {
      const ids = [...new Set(query.metricIds.split(','))];
      return flagsOnTime(app.pool, ids, { start: query.from, end: query.to });
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/flags/:id',
    access: 'viewer',
    summary: 'One flag with its history.',
    answer: '{ flag: Flag, events: [{ id, at, kind, personName, remark }] }. 404 NOT_FOUND.',
    handle: async ({ app, params }) => {
      const flag = await needFlag(app.pool, params.id);
      return { flag, events: await eventsOfFlag(app.pool, flag.id) };
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/flags',
    access: 'operator',
    summary:
      'Hands a flag to a person, from an alarm, from a stretch of a trend or on its own. What an alarm shows is kept as evidence.',
    answer: 'Flag.',
    body: flagSchema,
    handle: async ({ app, db, body, person }) => {
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
      return findFlag(app.pool, id);
    },
  }),
];
