import {
  BeaconError,
  closeFlagSchema,
  flagSchema,
  OUTCOME_WORDS,
  type FlagOutcome,
} from '@vivid-beacon/core';
import { addEvent, findAlarm } from '../alarms/sql';
import { findAsset } from '../assets/sql';
import { withTransaction } from '../db/database';
import { endpoint } from '../http/endpoint';
import { notify } from '../live/notify';
import { findPerson } from '../people/sql';
import { addFlag, closeFlag, findFlag, listOpenFlags } from './sql';

export const flagEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/flags',
    access: 'viewer',
    summary: 'Lists the open flags of everybody, those due first in front.',
    answer: '[Flag]',
    handle: ({ app }) => listOpenFlags(app.pool),
  }),
  endpoint({
    method: 'get',
    path: '/api/flags/:id',
    access: 'viewer',
    summary: 'One flag.',
    answer: 'Flag. 404 NOT_FOUND.',
    handle: async ({ app, params }) => {
      const flag = await findFlag(app.pool, params.id);
      if (!flag) throw new BeaconError('NOT_FOUND', 'This flag does not exist.');
      return flag;
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/flags',
    access: 'operator',
    summary: 'Hands a flag to a person, from an alarm or on its own.',
    answer: 'Flag.',
    body: flagSchema,
    handle: async ({ app, body, person }) => {
      const taker = await findPerson(app.pool, body.toPersonId);
      if (!taker) throw new BeaconError('BAD_INPUT', 'This person does not exist.', 'toPersonId');
      if (taker.role === 'viewer') {
        throw new BeaconError(
          'BAD_INPUT',
          `${taker.name} may only look; choose somebody who can close a flag.`,
          'toPersonId',
        );
      }
      if (!(await findAsset(app.pool, body.assetId))) {
        throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'assetId');
      }
      if (body.alarmId !== null && !(await findAlarm(app.pool, body.alarmId))) {
        throw new BeaconError('BAD_INPUT', 'This alarm does not exist.', 'alarmId');
      }
      const id = await withTransaction(app.pool, async (db) => {
        const flagId = await addFlag(db, { ...body, fromPersonId: person.id, at: app.now() });
        if (body.alarmId !== null) {
          await addEvent(db, {
            alarmId: body.alarmId,
            at: app.now(),
            kind: 'flagged',
            personId: person.id,
            remark: `${body.title}, handed to ${taker.name}`,
          });
          await notify(db, 'alarms', [body.alarmId]);
        }
        await notify(db, 'flags', [flagId]);
        return flagId;
      });
      return findFlag(app.pool, id);
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/flags/:id/outcome',
    access: 'operator',
    summary: 'Closes a flag with its outcome: its taker, its giver, or an analyst may.',
    answer: 'Flag. 409 WRONG_STATE when it is closed already.',
    body: closeFlagSchema,
    handle: async ({ app, params, body, person }) => {
      const flag = await findFlag(app.pool, params.id);
      if (!flag) throw new BeaconError('NOT_FOUND', 'This flag does not exist.');
      const theirs = flag.to.id === person.id || flag.from.id === person.id;
      if (!theirs && person.role === 'operator') {
        throw new BeaconError(
          'NOT_ALLOWED',
          `This flag is ${flag.to.name}'s; only they, its giver or an analyst may close it.`,
        );
      }
      const outcome = body.outcome as FlagOutcome;
      await withTransaction(app.pool, async (db) => {
        if (!(await closeFlag(db, flag.id, person, outcome, body.note, app.now()))) {
          throw new BeaconError('WRONG_STATE', 'This flag is closed already.');
        }
        if (flag.alarmId !== null) {
          const remark = body.note ? `${OUTCOME_WORDS[outcome]}. ${body.note}` : OUTCOME_WORDS[outcome];
          await addEvent(db, {
            alarmId: flag.alarmId,
            at: app.now(),
            kind: 'flagClosed',
            personId: person.id,
            remark,
          });
          await notify(db, 'alarms', [flag.alarmId]);
        }
        await notify(db, 'flags', [flag.id]);
      });
      return findFlag(app.pool, flag.id);
    },
  }),
];
